<?php

namespace App\Kernel\Ledger;

use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Recomputes every chain and compares its end with the stream table and with the anchors outside the database. */
final class VerifyLedger
{
    private const BATCH = 5000;

    /** @var list<array{stream: string, seq: int, what: string}> */
    private array $breaks = [];

    /** @var array<string, array{seq: int, hash: string}> of chains that were not come to yet */
    private array $anchors = [];

    private int $streams = 0;

    /**
     * @param  ?callable(Checkpoint): void  $progress  called after each batch, with the point to go on from
     * @return array{events: int, streams: int, breaks: list<array{stream: string, seq: int, what: string}>} chains of
     *     this walk only, events of all of it
     */
    public function verify(?callable $progress = null, ?Checkpoint $from = null): array
    {
        [$this->breaks, $this->streams] = [[], 0];
        $told = Anchors::latest();
        $this->anchors = $told['heads'];
        $at = $from ?? Checkpoint::start();
        do {
            $rows = self::after($at);
            $ends = [];
            foreach ($rows as $row) {
                $at = $this->step($at, $row);
                $ends[$at->stream] = ['seq' => $at->seq, 'hash' => $at->hash];
            }
            $last = $rows->count() < self::BATCH;
            // The last chain of a batch may go on in the next one.
            $this->compareEnds($last ? $ends : array_diff_key($ends, [$at->stream => true]));
            $progress !== null && $progress($at);
        } while (! $last);
        $this->missing($from);
        $this->evidence($told);

        return ['events' => $at->events, 'streams' => $this->streams, 'breaks' => $this->breaks];
    }

    /** Whether the signatures can be checked: only who owns the key can. */
    public static function holdsKey(): bool
    {
        return is_readable(dirname(Anchors::sealedPath()).'/key');
    }

    /** @return Collection<int, \stdClass> */
    private static function after(Checkpoint $at): Collection
    {
        return DB::table('ledger')
            // Written so that the key (stream, seq) is walked; a comparison of pairs reads and sorts everything.
            ->whereRaw('stream >= ? AND (stream > ? OR seq > ?)', [$at->stream, $at->stream, $at->seq])
            ->orderBy('stream')
            ->orderBy('seq')
            ->limit(self::BATCH)
            ->get();
    }

    private function step(Checkpoint $at, \stdClass $row): Checkpoint
    {
        $same = $row->stream === $at->stream;
        $before = $same ? $at : new Checkpoint($row->stream, 0, Ledger::GENESIS, $at->events);
        $what = match (true) {
            $row->seq !== $before->seq + 1 => 'Event '.($before->seq + 1).' is missing.',
            $row->prev_hash !== $before->hash => "Event $row->seq does not follow event $before->seq.",
            Ledger::hash((array) $row) !== $row->hash => "Event $row->seq ($row->kind) was altered later.",
            default => null,
        };
        if ($what !== null && ! $before->broken) {
            $this->breaks[] = ['stream' => $row->stream, 'seq' => $row->seq, 'what' => $what];
        }

        return $before->to($row->seq, $row->hash, $what !== null);
    }

    /** @param  array<string, array{seq: int, hash: string}>  $ends */
    private function compareEnds(array $ends): void
    {
        $heads = DB::table('ledger_streams')
            ->whereIn('stream', array_map(strval(...), array_keys($ends)))
            ->get()
            ->keyBy('stream')
            ->map(fn (\stdClass $h): array => ['seq' => $h->seq, 'hash' => $h->hash])
            ->all();
        foreach ($ends as $stream => $end) {
            $this->streams++;
            $this->compareEnd((string) $stream, $end, $heads[$stream] ?? null, 'the stream table');
            $this->compareEnd((string) $stream, $end, $this->anchors[$stream] ?? null, 'the anchor file');
            unset($this->anchors[$stream]);
        }
    }

    /** Chains that an account of their ends knows, and the ledger does not. */
    private function missing(?Checkpoint $from): void
    {
        $heads = DB::table('ledger_streams AS s')
            ->where('s.seq', '>', 0)
            ->whereNotExists(fn ($q) => $q->from('ledger AS l')->whereColumn('l.stream', 's.stream'))
            ->get();
        foreach ($heads as $head) {
            $this->compareEnd($head->stream, self::nothing(), (array) $head, 'the stream table');
        }
        foreach (array_chunk($this->anchors, self::BATCH, true) as $chunk) {
            $names = array_map(strval(...), array_keys($chunk));
            // Those from before the point this walk began at were compared by the one before.
            $seen = DB::table('ledger')->whereIn('stream', $from === null ? [] : $names)->distinct();
            foreach (array_diff_key($chunk, $seen->pluck('seq', 'stream')->all()) as $stream => $head) {
                $this->compareEnd((string) $stream, self::nothing(), $head, 'the anchor file');
            }
        }
    }

    /** @param  array{heads: array<string, mixed>, malformed: list<int>, conflicts: list<string>}  $told */
    private function evidence(array $told): void
    {
        foreach ($told['malformed'] as $line) {
            $this->tell('anchors', $line, "Line $line of the anchor file is no anchor.");
        }
        foreach ($told['conflicts'] as $stream) {
            $this->tell($stream, 0, 'Two different events were anchored under one number.');
        }
        $sealed = Anchors::sealedPath();
        foreach (self::holdsKey() ? Seal::broken($sealed, Seal::keyOf(dirname($sealed))) : [] as $line) {
            $this->tell('anchors', $line, "Line $line of the sealed anchors does not carry the seal's signature.");
        }
    }

    /**
     * @param  array{seq: int, hash: string}  $end
     * @param  array<mixed>|null  $known  seq and hash
     */
    private function compareEnd(string $stream, array $end, ?array $known, string $where): void
    {
        if ($known === null) {
            $this->tell($stream, 0, "The stream is in the ledger, but $where does not know it.");
        } elseif ($known['seq'] > $end['seq']) {
            $gone = $known['seq'] - $end['seq'];
            $this->tell(
                $stream,
                $end['seq'] + 1,
                "The newest $gone event(s) are gone: $where knows event {$known['seq']}, the chain ends at ".
                    "{$end['seq']}.",
            );
        } elseif (self::hashAt($stream, $known['seq'], $end) !== $known['hash']) {
            $this->tell($stream, $known['seq'], "Event {$known['seq']} is not the one that $where knows.");
        }
    }

    /** @param  array{seq: int, hash: string}  $end */
    private static function hashAt(string $stream, int $seq, array $end): ?string
    {
        return $seq === $end['seq']
            ? $end['hash']
            : DB::table('ledger')->where('stream', $stream)->where('seq', $seq)->value('hash');
    }

    /** @return array{seq: int, hash: string} */
    private static function nothing(): array
    {
        return ['seq' => 0, 'hash' => Ledger::GENESIS];
    }

    private function tell(string $stream, int $seq, string $what): void
    {
        $this->breaks[] = ['stream' => $stream, 'seq' => $seq, 'what' => $what];
    }
}
