import { messages } from '../../message';

export const TRUST_WORDS = messages({
  head: 'Trust this laptop',
  why: 'A phone opens the application without a network only where it was encrypted. This laptop has an authority of its own that vouches for it; once the phone trusts that, it is done for good.',
  opensAlready: 'Here the application opens without a network already.',
  none: 'This server has no authority of its own: it is opened on this machine alone, or shows a certificate that it was given.',
  first: '1. Take the certificate of the authority',
  take: 'Take the certificate',
  second: '2. Tell the phone to trust it',
  android:
    'Android: Settings, Security, Encryption and credentials, Install a certificate, CA certificate; choose the file ipsonomo-authority.crt.',
  ios: 'iPhone, iPad: allow the download of the profile; Settings, Profile downloaded, Install. Then Settings, General, About, Certificate Trust Settings: switch it on.',
  desktop:
    'Windows: open the file, Install certificate, Local computer, Trusted Root Certification Authorities. Firefox: Settings, Certificates, Authorities, Import.',
  compare: 'Its fingerprint (SHA-256), as it stands in the terminal of the laptop:',
  third: '3. Open it encrypted',
  open: 'Open {address}',
  again:
    'There you come in once more, with your name and password or a key. What waits here to be sent stays here: send it first.',
  leave: 'A job is over? Take the authority off the phone again, in the same settings.',
});
