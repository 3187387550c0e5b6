/** Names this build; put in by vite.config.ts. */
declare const __BUILD__: string;
