export const launchOptions: () => { readonly executablePath: string; readonly headless: boolean; readonly args: string[] };
