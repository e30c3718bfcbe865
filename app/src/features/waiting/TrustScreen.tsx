import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { Linking } from 'react-native';
import type { AuthorityView } from '@ipsonomo/core/api';
import { TRUST_WORDS } from '@ipsonomo/language/screens/trust';
import { acts, download, pathOf, reading } from '../../data';
import { Card, MacText, Notice, Page, TwoColumns, Words } from '../../parts';
import { BackLine } from './BackLine';

/** How a phone comes to trust this laptop, so that it opens the application encrypted, and without a network. */
export function TrustScreen() {
  const { data: authority } = useQuery(reading(acts.readAuthority, {}));
  return (
    <Page maxWidth={1100}>
      <BackLine />
      <Words size="title" heading={1}>
        {TRUST_WORDS.head}
      </Words>
      <Words tone="second">{TRUST_WORDS.why}</Words>
      {globalThis.isSecureContext ? <Notice tone="moss" title={TRUST_WORDS.opensAlready} /> : null}
      {authority?.port === null ? <Notice tone="plain">{TRUST_WORDS.none}</Notice> : null}
      {authority?.port ? <Steps authority={authority} /> : null}
    </Page>
  );
}

function Steps({ authority: { port, fingerprint } }: { readonly authority: AuthorityView }) {
  const address = `https://${globalThis.location.hostname}:${port}/`;
  return (
    <>
      <TwoColumns
        second={
          <>
            <Card>
              <Words size="strong" heading={2}>
                {TRUST_WORDS.second}
              </Words>
              {[TRUST_WORDS.android, TRUST_WORDS.ios, TRUST_WORDS.desktop].map((step) => (
                <Words key={step}>{step}</Words>
              ))}
              <Words tone="second">{TRUST_WORDS.compare}</Words>
              <MacText mac={fingerprint} size={15} />
            </Card>
            <Card>
              <Words size="strong" heading={2}>
                {TRUST_WORDS.third}
              </Words>
              <Words tone="second">{TRUST_WORDS.again}</Words>
              <Button
                type="outline"
                title={TRUST_WORDS.open({ address })}
                onPress={() => void Linking.openURL(address)}
              />
            </Card>
          </>
        }
      >
        <Card>
          <Words size="strong" heading={2}>
            {TRUST_WORDS.first}
          </Words>
          <Button
            title={TRUST_WORDS.take}
            onPress={() => download(pathOf(acts.fetchAuthority, {}))}
          />
        </Card>
      </TwoColumns>
      <Words tone="second">{TRUST_WORDS.leave}</Words>
    </>
  );
}
