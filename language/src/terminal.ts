// The words of the server's own terminal and of the command line.
export { COMMAND_WORDS, SERVER_WORDS, USAGE } from './en/terminal';
