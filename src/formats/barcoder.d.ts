declare module 'barcoder' {
  const barcoder: { readonly validate: (code: string) => boolean };
  export default barcoder;
}
