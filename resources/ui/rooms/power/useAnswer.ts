import { useEffect, useState } from 'react';
import { compute } from '../../api/calc';
import { problemOf, type Problem } from '../../api/client';

/** Asks again when the question changes; an answer that comes late is dropped. */
export function useAnswer<T>(calculator: string, question: object | null) {
    const [answered, setAnswered] = useState<T | null>(null);
    const [problem, setProblem] = useState<Problem | null>(null);
    const asked = JSON.stringify(question);
    useEffect(() => {
        if (question === null) return;
        let stale = false;
        const timer = setTimeout(() => {
            void compute<T>(calculator, question).then(
                (answer) => {
                    if (stale) return;
                    setProblem(null);
                    setAnswered(answer);
                },
                (error: unknown) => {
                    if (!stale) setProblem(problemOf(error));
                },
            );
        }, 150);
        return () => {
            stale = true;
            clearTimeout(timer);
        };
        // eslint-disable-next-line react-hooks/exhaustive-deps -- `asked` stands for the question
    }, [calculator, asked]);
    return { answered: question === null ? null : answered, problem };
}
