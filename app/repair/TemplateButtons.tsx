interface TemplateButtonsProps {
  readonly templates: readonly { readonly id: string; readonly title: string }[];
}

/** Plans to begin from, one button each; they stand in a form that takes `template`. */
export const TemplateButtons = ({ templates }: TemplateButtonsProps) =>
  templates.map(({ id, title }) => (
    <button key={id} type="submit" name="template" value={id} className="btn justify-start text-left">
      {title}
    </button>
  ));
