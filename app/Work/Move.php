<?php

namespace App\Work;

/** What can happen to an operation beside being proven. */
enum Move: string
{
    case Start = 'start';
    case Pause = 'pause';
    case Jam = 'jam';
    case Free = 'free';
    case Note = 'note';
    case Undo = 'undo';

    /** @return list<OperationState> the states it is possible in */
    public function possibleIn(): array
    {
        return match ($this) {
            self::Start => [OperationState::Open, OperationState::Paused],
            self::Pause => [OperationState::Running],
            self::Jam => [OperationState::Open, OperationState::Running, OperationState::Paused],
            self::Free => [OperationState::Jammed],
            self::Note => OperationState::cases(),
            self::Undo => [OperationState::Done],
        };
    }

    public function leadsTo(OperationState $before): OperationState
    {
        return match ($this) {
            self::Start => OperationState::Running,
            self::Pause => OperationState::Paused,
            self::Jam => OperationState::Jammed,
            self::Free, self::Undo => OperationState::Open,
            self::Note => $before,
        };
    }

    public function needsReason(): bool
    {
        return $this === self::Jam || $this === self::Undo || $this === self::Note;
    }

    public function asksWhy(): string
    {
        return match ($this) {
            self::Jam => 'Say what jams, so that the next person knows.',
            self::Undo => 'Say why it is undone: it stays in the record.',
            default => 'Write the note first.',
        };
    }

    public function refused(string $name, OperationState $state): string
    {
        return match ($state) {
            OperationState::Done => "\"$name\" is done. Undo it first.",
            OperationState::Jammed => "\"$name\" is set aside because it jams.",
            OperationState::Running => "\"$name\" is being worked on already.",
            OperationState::Open, OperationState::Paused => $this === self::Undo
                ? "\"$name\" is not done, so there is nothing to undo."
                : "\"$name\" is not being worked on.",
        };
    }
}
