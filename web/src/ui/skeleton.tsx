import { Skeleton as Parts } from "@chakra-ui/react";

/** The room of what is still being fetched. */
export const Skeleton = ({ w, h }: { w: string; h: string }) => <Parts loading width={w} height={h} className="skeleton" />;
