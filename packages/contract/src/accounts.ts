/** Signing in, accounts and what is recorded of them. No reply holds a password, a PIN, or a secret that was shown once. */
import { z } from 'zod';

/** What somebody is in the shop. */
export const roles = ['technician', 'counter', 'owner'] as const;
/** One of `roles`. */
export const roleSchema = z.enum(roles);
/** One of `roles`. */
export type Role = z.infer<typeof roleSchema>;

/** Long enough that guessing is hopeless; beyond the upper bound only work is made. Values of ours. */
export const passwordBounds = { least: 10, most: 200 } as const;
const password = z.string().min(1).max(passwordBounds.most);
const name = z.string().trim().min(1, 'enter a name').max(120);
/** Digits of a PIN. */
export const pinSchema = z.string().regex(/^\d{4,8}$/, 'enter 4 to 8 digits');
const code = z.string().trim().min(1).max(40);

/** Who is signed in in this browser. */
export const signedInSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  role: roleSchema,
  /** How: with a PIN some things ask for the password first. */
  by: z.enum(['password', 'pin', 'demo']),
  /** The password was asked for so lately that it isn’t asked for again. */
  fresh: z.boolean(),
  hasPin: z.boolean(),
  /** Second factor. */
  hasFactor: z.boolean(),
});
/** Who is signed in in this browser. */
export type SignedIn = z.infer<typeof signedInSchema>;
/** What a browser is told before anybody is signed in. */
export const sessionSchema = z.object({
  signedIn: signedInSchema.nullable(),
  /** Nobody has an account yet: the server’s console shows a code. */
  setUp: z.boolean(),
  /** Anybody on this machine may be anybody. */
  demo: z.boolean(),
  /** When a person's data was erased last: what a browser kept before that is thrown away. */
  erasedAt: z.string().nullable(),
  /** Null: this browser is no bench where a PIN is enough. */
  bench: z.object({ name: z.string(), people: z.array(z.object({ id: z.uuid(), name: z.string() })) }).nullable(),
});
/** State of a browser’s session. */
export type Session = z.infer<typeof sessionSchema>;

export const signInSchema = z.strictObject({ name, password, code: code.optional() });
export const signInByPinSchema = z.strictObject({ person: z.uuid(), pin: z.string().max(20) });
export const signInToDemoSchema = z.strictObject({ person: z.uuid().optional() });
/** By a code that the console (first owner) or an owner (everybody else) shows once; `name` is asked of the first owner only. */
export const joinByCodeSchema = z.strictObject({ code, name: name.optional(), password });
export const confirmSelfSchema = z.strictObject({ password, code: code.optional() });
export const changePasswordSchema = z.strictObject({ password });
/** Null takes it away. */
export const setPinSchema = z.strictObject({ pin: pinSchema.nullable() });
export const trustBenchSchema = z.strictObject({ name: z.string().trim().min(1, 'enter a name').max(60) });
export const startFactorSchema = z.strictObject({});
/** Shown once: for an authenticator by its address (a QR code) or typed. */
export const factorSecretSchema = z.object({ address: z.string(), secret: z.string() });
export const confirmFactorSchema = z.strictObject({ code });
/** Each opens once where the authenticator is lost. */
export const recoveryCodesSchema = z.object({ codes: z.array(z.string()) });

const encoded = (most: number) =>
  z
    .string()
    .max(most)
    .regex(/^[\w-]*$/, 'not base64url');
/** What a browser says of a passkey it made (PublicKeyCredential in its JSON form, W3C Web Authentication); what else it says is left out. */
export const passkeyMadeSchema = z.object({
  id: encoded(1400).min(1),
  rawId: encoded(1400),
  type: z.literal('public-key'),
  response: z.object({
    clientDataJSON: encoded(4000),
    attestationObject: encoded(20_000),
    transports: z.array(z.string().max(20)).max(10).optional(),
  }),
  clientExtensionResults: z.object({}).prefault({}),
});
export type PasskeyMade = z.infer<typeof passkeyMadeSchema>;
/** What a browser says of one that signed. */
export const passkeyUsedSchema = z.object({
  id: encoded(1400).min(1),
  rawId: encoded(1400),
  type: z.literal('public-key'),
  response: z.object({
    clientDataJSON: encoded(4000),
    authenticatorData: encoded(4000),
    signature: encoded(4000),
    userHandle: encoded(200).nullish(),
  }),
  clientExtensionResults: z.object({}).prefault({}),
});
export type PasskeyUsed = z.infer<typeof passkeyUsedSchema>;
/** For navigator.credentials, in its JSON form. */
export const passkeyOptionsSchema = z.record(z.string(), z.unknown());
export type PasskeyOptions = z.infer<typeof passkeyOptionsSchema>;
export const passkeyOfferSchema = z.object({ options: passkeyOptionsSchema });
/** Null: none was made for this name of the server. */
export const passkeyAskedSchema = z.object({ options: passkeyOptionsSchema.nullable() });
export const addPasskeySchema = z.strictObject({ name: z.string().trim().min(1, 'enter a name').max(60), passkey: passkeyMadeSchema });
export const usePasskeySchema = z.strictObject({ passkey: passkeyUsedSchema });
export const dropPasskeySchema = z.strictObject({ id: encoded(1400).min(1) });
/** One's own; `at`: the name of the server that it is for. */
export const passkeySchema = z.object({
  id: z.string(),
  name: z.string(),
  at: z.string(),
  addedAt: z.string(),
  usedAt: z.string().nullable(),
});
/** One's own passkey. */
export type Passkey = z.infer<typeof passkeySchema>;
/** `possible`: the server was asked by a name; for a bare address browsers make none. */
export const passkeysSchema = z.object({ passkeys: z.array(passkeySchema), possible: z.boolean() });

/** An account as an owner sees it. */
export const accountSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  role: roleSchema,
  /** `none`: named in entries, and can’t sign in. */
  state: z.enum(['active', 'invited', 'none', 'left']),
  hasPin: z.boolean(),
  hasFactor: z.boolean(),
  lastSignIn: z.string().nullable(),
});
/** An account as an owner sees it. */
export type Account = z.infer<typeof accountSchema>;
export const accountsSchema = z.object({ accounts: z.array(accountSchema) });
export const addAccountSchema = z.strictObject({ id: z.uuid(), name, role: roleSchema });
export const changeAccountSchema = z.strictObject({ name: name.optional(), role: roleSchema.optional(), left: z.boolean().optional() });
/** Shown once; whoever types it chooses a password. */
export const invitationSchema = z.object({ code: z.string(), until: z.string() });

/** A bench that was trusted. */
export const benchSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  by: z.string(),
  at: z.string(),
  lastUsed: z.string().nullable(),
  ended: z.boolean(),
});
/** A bench that was trusted. */
export type Bench = z.infer<typeof benchSchema>;
export const benchesSchema = z.object({ benches: z.array(benchSchema) });

/** What is recorded of accounts and settings. */
export const auditKinds = [
  'signed-in',
  'signed-in-by-pin',
  'sign-in-refused',
  'sign-in-held',
  'pin-refused',
  'confirmed',
  'signed-out',
  'owner-made',
  'account-made',
  'account-changed',
  'account-left',
  'account-back',
  'invited',
  'joined',
  'password-changed',
  'pin-set',
  'pin-removed',
  'factor-set',
  'factor-removed',
  'recovery-code-used',
  'passkey-added',
  'passkey-removed',
  'bench-trusted',
  'bench-ended',
  'shop-changed',
  'image-erased',
  'data-given',
  'customer-erased',
  'account-erased',
  'refused',
] as const;
/** One of `auditKinds`. */
export type AuditKind = (typeof auditKinds)[number];
/** A line of the audit; `who` null where nobody was signed in. */
export const auditSchema = z.object({
  id: z.number().int(),
  at: z.string(),
  what: z.enum(auditKinds),
  who: z.string().nullable(),
  about: z.string().nullable(),
  from: z.string().nullable(),
});
/** A line of the audit. */
export type AuditLine = z.infer<typeof auditSchema>;
export const auditListSchema = z.object({ lines: z.array(auditSchema) });
export const auditQuery = z.strictObject({ before: z.coerce.number().int().positive().optional() });
