interface TemplateButtonsProps {
  readonly templates: readonly { readonly id: string; readonly title: string }[];
}

/** Plans to start from, one button each; they belong in a form that accepts `template`. */
export const TemplateButtons = ({ templates }: TemplateButtonsProps) =>
  templates.map(({ id, title }) => (
    <button key={id} type="submit" name="template" value={id} className="btn justify-start text-left">
      {title}
    </button>
  ));
