import { data } from "react-router";

export function loader(): never {
  throw data("There is no such page.", { status: 404 });
}

export default function NotFound() {
  return null;
}
