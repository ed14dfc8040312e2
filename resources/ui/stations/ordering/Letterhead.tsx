/** The head of a paper that leaves the house: what it is and for whom, and which unit it speaks of. */
export function Letterhead({
    title,
    to,
    about,
}: {
    title: string;
    to: (string | undefined | null)[];
    about: (string | undefined | null)[];
}) {
    return (
        <header className="mb-3 flex justify-between">
            <div>
                <h1 className="text-3xl">{title}</h1>
                <p>{to.filter(Boolean).join(', ')}</p>
            </div>
            <p className="text-right whitespace-pre-line">{['Vast Yard', ...about].filter(Boolean).join('\n')}</p>
        </header>
    );
}
