import { createElement, lazy, type ComponentType, type FunctionComponent } from 'react';
import type { Card } from '../api/client';

/** The stations of the house, as the route card's sections are keyed. */
export type StationId = keyof Card['sections'];

export type CardProps = { card: Card; onCard: (card: Card) => void; can: (ability: string) => boolean };

/** What a station's view gets: the unit, the station's own section, and where to put the card a write answers with. */
export type SectionProps<K extends StationId> = CardProps & { section: NonNullable<Card[K]> };

type Load<P> = () => Promise<FunctionComponent<P>>;

type Definition<K extends StationId> = {
    id: K;
    /** Place on the way of a unit; orders tabs and menus. */
    order: number;
    label: string;
    /** Loads the view of the station's section. */
    view: Load<SectionProps<K>>;
    /** Sections of other stations the view reads beside its own. */
    reads?: StationId[];
    /** Shown while the station has no section of the unit yet but something can be begun here. */
    begin?: { when: (card: Card) => boolean; view: Load<CardProps> };
    /** A few lines for the overview of the card. */
    summary?: Load<SectionProps<K>>;
    /** Whose first page the queue of this station is, and what it is called there. */
    home?: { role: string; title: string };
};

/** A station as the rest of the house sees it: its views find their own section of a card. */
export type Station = {
    id: StationId;
    order: number;
    label: string;
    reads: StationId[];
    View: ComponentType<CardProps>;
    Summary: ComponentType<CardProps> | null;
    begin: { when: (card: Card) => boolean; View: ComponentType<CardProps> } | null;
    home: { role: string; title: string } | null;
};

/** Loaded when first shown; shows nothing for a unit that has no such section yet. */
function ofSection<K extends StationId>(id: K, load: Load<SectionProps<K>>): ComponentType<CardProps> {
    const View = lazy(() => load().then((component) => ({ default: component })));
    return function Section(props: CardProps) {
        const section = props.card[id];
        return section
            ? createElement<SectionProps<K>>(View as FunctionComponent<SectionProps<K>>, { ...props, section })
            : null;
    };
}

export function defineStation<K extends StationId>(station: Definition<K>): Station {
    const { id, order, label, view, begin, summary } = station;
    return {
        id,
        order,
        label,
        reads: station.reads ?? [],
        home: station.home ?? null,
        View: ofSection(id, view),
        Summary: summary ? ofSection(id, summary) : null,
        begin: begin
            ? { when: begin.when, View: lazy(() => begin.view().then((component) => ({ default: component }))) }
            : null,
    };
}
