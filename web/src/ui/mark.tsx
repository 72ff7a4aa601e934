/** The mark: three strata. Its colours stand for card and ink. */
export const Mark = () => (
	<svg width="26" height="26" viewBox="0 0 32 32" aria-hidden="true">
		<path d="M3 26l2-4 22 1 2 4-2 2H5z" fill="#3a2e26" />
		<path d="M5 20l3-4 18 1 3 4-3 1H7z" fill="#a65f00" />
		<path d="M4 14l3-4 21 1 1 4-4 1H7z" fill="#d9b98a" />
		<path d="M8 9l2-5 16 1 2 4-3 1H10z" fill="#e0a040" />
	</svg>
);
