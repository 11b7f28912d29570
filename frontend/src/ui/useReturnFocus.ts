/** Give the focus back to where it was when a dialog that is drawn only while it is open goes away. */
import { useEffect, useState } from "react";

export function useReturnFocus(): void {
  const [opener] = useState(() => document.activeElement);
  useEffect(
    () => () => {
      // After the dialog has let go of it.
      setTimeout(() => {
        if (opener instanceof HTMLElement && opener.isConnected) opener.focus();
      });
    },
    [opener],
  );
}
