import { offerTitles } from "@words/offerWords";
import { minorDigits, priceText } from "../text/money";
import { Picture } from "../ui/Picture";
import type { EstimateData } from "./estimateView.server";

/** The offers side by side: what each costs now, and what its comebacks cost on average. */
export function OfferPicture({ page: { offers, terms } }: { page: EstimateData }) {
  const { currency } = terms;
  const scale = 10 ** minorDigits(currency);
  const unit = currency === "XXX" ? "" : ` in ${currency}`;
  return (
    <Picture
      title={`Price and comeback risk${unit}`}
      words={offers
        .map(
          ({ kind, priced, comebackMinor }) =>
            `${offerTitles[kind]}: ${priceText(priced.totalMinor, currency)}, and ${priceText(comebackMinor, currency)} for comebacks on average`,
        )
        .join("; ")}
      file="airway-offers"
      of={JSON.stringify(
        offers.map(({ kind, priced, comebackMinor }) => [kind, priced.totalMinor, comebackMinor]),
      )}
      height={56 + 44 * offers.length}
      configure={(colours) => ({
        type: "bar",
        data: {
          labels: offers.map(({ kind }) => offerTitles[kind]),
          datasets: [
            {
              label: "price",
              data: offers.map(({ priced }) => priced.totalMinor / scale),
              backgroundColor: colours.ground,
            },
            {
              label: "comebacks, on average",
              data: offers.map(({ comebackMinor }) => comebackMinor / scale),
              backgroundColor: colours.card,
              borderColor: colours.danger,
              borderWidth: 2,
            },
          ],
        },
        options: {
          indexAxis: "y",
          scales: { x: { stacked: true, beginAtZero: true }, y: { stacked: true } },
          plugins: { legend: { position: "bottom" } },
        },
      })}
    />
  );
}
