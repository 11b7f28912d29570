/** Where the page begins: its language first, then everything that is written in it. */
import { speak } from "./language/chosen";

void speak().then(() => import("./start"));
