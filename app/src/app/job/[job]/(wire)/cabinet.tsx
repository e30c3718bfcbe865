export { CabinetScreen as default } from '../../../../screens/cabinet/CabinetScreen';
