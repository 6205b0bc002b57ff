import { createContext } from "react";

/** Where the files of a document are, by their hashes. */
export interface Files {
  picture: (file: string) => string;
  attached: (file: string) => string;
}

/** Those of the firm itself, where nobody says otherwise. */
export const ownFiles: Files = {
  picture: (file) => `/api/files/${file}/picture`,
  attached: (file) => `/api/files/${file}`,
};

/** Where the files of the document that is shown are. */
export const FilesContext = createContext(ownFiles);
