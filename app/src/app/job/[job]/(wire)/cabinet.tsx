export { CabinetScreen as default } from '../../../../features/wire/cabinet/CabinetScreen';
