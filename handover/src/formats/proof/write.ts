import { fileName, type Format, type Material, type ProofRecord } from '../../format';
import { chainRevisions, headOf } from './chain';
import { proofPaper } from './paper';
import { proofReport } from './report';
import { PROOF_FORMAT, PROOF_VERSION, type ProofFile } from './verify';

/** A proof needs what seals it: a plan alone proves nothing. */
function recordOf({ record }: Material): ProofRecord {
  if (!record) throw new Error('a proof is made where the evidence is');
  return record;
}

function sealed(material: Material) {
  const { evidence, revisions: lines, publicKey } = recordOf(material);
  const report = proofReport(material);
  const revisions = chainRevisions(lines);
  return { report, evidence, revisions, publicKey, head: headOf(evidence, revisions, report) };
}

/** R-PROOF: the proof for machines, its signature over the very bytes of the file, and the key to check it with. */
export const proofJson: Format = {
  id: 'proof-json',
  write: (material) => {
    const { report, evidence, revisions, publicKey, head } = sealed(material);
    const file: ProofFile = {
      ...{ format: PROOF_FORMAT, version: PROOF_VERSION, head, publicKey },
      ...{ report, revisions, evidence },
    };
    const content = new Uint8Array(Buffer.from(`${JSON.stringify(file, null, 1)}\n`));
    const name = fileName(material, 'proof', '.json');
    return {
      files: [
        { name, content },
        { name: `${name}.sig`, content: recordOf(material).sign(content) },
        { name: `${name}.key.pem`, content: publicKey },
      ],
      left: [],
    };
  },
};

export const proofPdf: Format = {
  id: 'proof-pdf',
  write: async (material) => {
    const { report, head, publicKey } = sealed(material);
    const { content, left } = await proofPaper(material, report, { head, publicKey });
    return { files: [{ name: fileName(material, 'proof', '.pdf'), content }], left };
  },
};
