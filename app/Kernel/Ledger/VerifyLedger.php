<?php

namespace App\Kernel\Ledger;

use Illuminate\Support\Facades\DB;

/** Recomputes every chain and compares its end with the stream table and with the anchors outside the database. */
final class VerifyLedger
{
    private const BATCH = 5000;

    /**
     * @param  ?callable(int): void  $progress  called with the number of events read so far
     * @return array{events: int, streams: int, breaks: list<array{stream: string, seq: int, what: string}>}
     */
    public function verify(?callable $progress = null): array
    {
        $breaks = [];
        $ends = [];
        $events = 0;
        [$stream, $seq, $hash, $broken] = ['', 0, Ledger::GENESIS, false];
        do {
            $rows = DB::table('ledger')
                // Written so that the key (stream, seq) is walked; a comparison of pairs reads and sorts everything.
                ->whereRaw('stream >= ? AND (stream > ? OR seq > ?)', [$stream, $stream, $seq])
                ->orderBy('stream')
                ->orderBy('seq')
                ->limit(self::BATCH)
                ->get();
            foreach ($rows as $row) {
                if ($row->stream !== $stream) {
                    [$stream, $seq, $hash, $broken] = [$row->stream, 0, Ledger::GENESIS, false];
                }
                $what = match (true) {
                    $row->seq !== $seq + 1 => 'Event '.($seq + 1).' is missing.',
                    $row->prev_hash !== $hash => "Event $row->seq does not follow event $seq.",
                    Ledger::hash((array) $row) !== $row->hash => "Event $row->seq ($row->kind) was altered later.",
                    default => null,
                };
                if ($what !== null && ! $broken) {
                    $breaks[] = ['stream' => $stream, 'seq' => $row->seq, 'what' => $what];
                    $broken = true;
                }
                [$seq, $hash] = [$row->seq, $row->hash];
                $ends[$stream] = ['seq' => $seq, 'hash' => $hash];
                $events++;
            }
            $progress !== null && $progress($events);
        } while ($rows->count() === self::BATCH);

        $heads = DB::table('ledger_streams')
            ->where('seq', '>', 0)
            ->get()
            ->keyBy('stream')
            ->map(fn ($h) => ['seq' => $h->seq, 'hash' => $h->hash])
            ->all();
        $anchors = Anchors::latest();
        array_push($breaks, ...self::unknown($ends, $heads, 'the stream table'));
        array_push($breaks, ...self::unknown($ends, $anchors['heads'], 'the anchor file'));
        foreach ($anchors['malformed'] as $line) {
            $what = "Line $line of the anchor file is no anchor.";
            $breaks[] = ['stream' => 'anchors', 'seq' => $line, 'what' => $what];
        }
        foreach ([['the stream table', $heads], ['the anchor file', $anchors['heads']]] as [$where, $known]) {
            foreach ($known as $name => $head) {
                $breaks = array_merge(
                    $breaks,
                    $this->compareEnd(
                        (string) $name,
                        $head,
                        $ends[$name] ?? ['seq' => 0, 'hash' => Ledger::GENESIS],
                        $where,
                    ),
                );
            }
        }

        return ['events' => $events, 'streams' => count($ends), 'breaks' => $breaks];
    }

    /**
     * @param  array<string, mixed>  $ends
     * @param  array<string, mixed>  $known
     * @return list<array{stream: string, seq: int, what: string}> streams that one account of their ends does not have
     */
    private static function unknown(array $ends, array $known, string $where): array
    {
        return array_map(
            fn (int|string $stream) => [
                'stream' => (string) $stream,
                'seq' => 0,
                'what' => "The stream is in the ledger, but $where does not know it.",
            ],
            array_keys(array_diff_key($ends, $known)),
        );
    }

    /**
     * @param  array{seq: int, hash: string}  $known
     * @param  array{seq: int, hash: string}  $end
     * @return list<array{stream: string, seq: int, what: string}>
     */
    private function compareEnd(string $stream, array $known, array $end, string $where): array
    {
        if ($known['seq'] > $end['seq']) {
            return [
                [
                    'stream' => $stream,
                    'seq' => $end['seq'] + 1,
                    'what' => 'The newest '.
                        ($known['seq'] - $end['seq']).
                        " event(s) are gone: $where knows event {$known['seq']}, the chain ends at {$end['seq']}.",
                ],
            ];
        }
        $at =
            $known['seq'] === $end['seq']
                ? $end['hash']
                : DB::table('ledger')->where('stream', $stream)->where('seq', $known['seq'])->value('hash');

        return $at === $known['hash']
            ? []
            : [
                [
                    'stream' => $stream,
                    'seq' => $known['seq'],
                    'what' => "Event {$known['seq']} is not the one that $where knows.",
                ],
            ];
    }
}
