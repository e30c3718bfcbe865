import { answerInTurn } from '../common/asked-thread';
import { ordered } from './thinking';

// Long computations of the server, one after the other, beside the thread that answers.

answerInTurn(ordered);
