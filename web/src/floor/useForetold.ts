import { useEffect, useState } from 'react';

/** What something would come to before it is done: asked for anew when what is asked is another; null until it is known. */
export function useForetold<Asked, Plan>(
  asked: Asked,
  look: (asked: Asked) => PromiseLike<{ readonly data?: Plan | undefined }>,
): readonly [Plan | null, (plan: Plan) => void] {
  const [plan, setPlan] = useState<Plan | null>(null);
  const text = JSON.stringify(asked);
  // biome-ignore lint/correctness/useExhaustiveDependencies: who asks is the same as long as the dialog is open
  useEffect(() => {
    let isOver = false;
    void look(JSON.parse(text) as Asked).then((found) => {
      if (!isOver && found.data) setPlan(found.data);
    });
    return () => {
      isOver = true;
    };
  }, [text]);
  return [plan, setPlan];
}
