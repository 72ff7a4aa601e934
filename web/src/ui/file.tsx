import { FileUpload as Parts } from "@chakra-ui/react";
import { useState } from "react";
import { Button } from "./button";

interface FileProps {
	label: string;
	/** What the button says. */
	choose?: string;
	accept: string[];
	/** In a form that is sent as one: its name there. */
	name?: string;
	required?: boolean;
	onFile?: (f: File | undefined) => void;
}

/** A file, chosen or dropped here. */
export function FileField({ label, choose = "Choose a file", accept, name, required, onFile }: FileProps) {
	const [wrong, setWrong] = useState("");
	return (
		<Parts.Root
			name={name}
			required={required}
			accept={accept}
			maxFiles={1}
			className="file"
			onFileAccept={(d) => {
				setWrong("");
				onFile?.(d.files[0]);
			}}
			onFileReject={(d) => {
				const f = d.files[0];
				if (!f) return;
				setWrong(`${f.file.name} cannot be taken here: choose one of ${accept.join(", ")}.`);
				onFile?.(undefined);
			}}
		>
			<Parts.Label>{label}</Parts.Label>
			<Parts.HiddenInput />
			<Parts.Dropzone className="file-drop" disableClick>
				<Parts.Trigger asChild>
					<Button>{choose}</Button>
				</Parts.Trigger>
				<Parts.Context>{({ acceptedFiles: [f] }) => <span>{f ? `${f.name}, ${size(f.size)}` : "or drop it here"}</span>}</Parts.Context>
			</Parts.Dropzone>
			{wrong && (
				<div role="alert" className="field-wrong">
					{wrong}
				</div>
			)}
		</Parts.Root>
	);
}

const size = (n: number) => (n < 1e5 ? `${Math.ceil(n / 1e3)} kB` : `${(n / 1e6).toFixed(1)} MB`);

/** A button that asks for a file and takes it at once. */
export const FileButton = ({ label, accept, onFile }: { label: string; accept: string[]; onFile: (f: File) => void }) => (
	<Parts.Root
		accept={accept}
		maxFiles={1}
		acceptedFiles={[]}
		className="file"
		onFileAccept={(d) => {
			if (d.files[0]) onFile(d.files[0]);
		}}
	>
		<Parts.HiddenInput aria-label={label} />
		<Parts.Trigger asChild>
			<Button>{label}</Button>
		</Parts.Trigger>
	</Parts.Root>
);

/** A button that asks for many files, or for a whole folder of them, and takes those it can use at once. */
export const FilesButton = ({ label, accept, folder, onFiles }: { label: string; accept: string[]; folder?: boolean; onFiles: (f: File[]) => void }) => (
	<Parts.Root
		accept={folder ? undefined : accept}
		directory={folder}
		maxFiles={2000}
		acceptedFiles={[]}
		className="file"
		onFileAccept={(d) => {
			const use = d.files.filter((f) => accept.some((a) => f.name.toLowerCase().endsWith(a)));
			if (use.length > 0 || d.files.length > 0) onFiles(use);
		}}
	>
		<Parts.HiddenInput aria-label={label} />
		<Parts.Trigger asChild>
			<Button>{label}</Button>
		</Parts.Trigger>
	</Parts.Root>
);

/** What a scanner or a phone gives. */
export const pictures = ["image/png", "image/jpeg", "image/tiff"];
