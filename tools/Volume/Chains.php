<?php

namespace Tools\Volume;

use App\Kernel\Ledger\Anchors;
use App\Kernel\Ledger\Ledger;
use Illuminate\Database\Connection;

/** The ledger of the copies: every chain reckoned anew, event by event, as the application would have written it. */
final class Chains
{
    private const ROWS = 1500;

    /** Steps and clues were not written down one by one in the first years; what decides was. */
    private const LEFT_OUT = [
        'teardown.step',
        'assembly.step',
        'dispatch.step',
        'teardown.proof',
        'assembly.proof',
        'dispatch.proof',
        'clue.answered',
        'photo.taken',
        'stock.issued',
    ];

    /** Written down in the last few years only. */
    private const LATELY = ['finding.recorded', 'measurement.recorded', 'pack.fitted'];

    /** @var array<int, list<array<string, mixed>>> events by template */
    private array $events = [];

    /** @var array<int, array{tag: string, serial: string}> */
    private array $names = [];

    /** @var list<array<string, mixed>> */
    private array $rows = [];

    /** @var list<array{stream: string, seq: int, hash: string}> */
    private array $heads = [];

    public int $written = 0;

    /** @param  list<int>  $units */
    public function __construct(private readonly Connection $db, array $units)
    {
        foreach ($units as $unit) {
            $this->events[$unit] = $db
                ->table('ledger')
                ->where('unit_id', $unit)
                ->whereNotIn('kind', self::LEFT_OUT)
                ->orderBy('id')
                ->get()
                ->map(fn (\stdClass $e) => (array) $e)
                ->all();
            $this->names[$unit] = [
                'tag' => (string) $db->table('units')->where('id', $unit)->value('core_tag'),
                'serial' => (string) $db->table('builds')->where('unit_id', $unit)->value('serial'),
            ];
        }
    }

    /** @param  list<array{kind: string, payload: array<string, mixed>}>  $more  what happened to this copy alone */
    public function write(int $template, int $unit, string $tag, string $serial, int $daysBack, array $more): void
    {
        $hash = Ledger::GENESIS;
        $seq = 0;
        $back = $daysBack * 86400;
        $swap = [$this->names[$template]['tag'] => $tag, $this->names[$template]['serial'] => $serial];
        $last = null;
        foreach ($this->events[$template] as $event) {
            if ($daysBack >= Copies::LATELY_DAYS && in_array($event['kind'], self::LATELY, true)) {
                continue;
            }
            unset($event['id'], $event['changes']);
            $event = ['stream' => "unit:$unit", 'seq' => ++$seq, 'unit_id' => $unit, 'prev_hash' => $hash] + $event;
            $event['at'] = self::earlier($event['at'], $back);
            $event['tablet_at'] = $event['tablet_at'] === null ? null : self::earlier($event['tablet_at'], $back);
            $event['payload'] = strtr($event['payload'], $swap);
            $hash = $event['hash'] = Ledger::hash($event);
            $this->rows[] = $last = $event;
        }
        foreach ($last === null ? [] : $more as $extra) {
            $event = [
                'seq' => ++$seq,
                'kind' => $extra['kind'],
                'payload' => json_encode($extra['payload'], JSON_THROW_ON_ERROR),
                'prev_hash' => $hash,
            ] + $last;
            $hash = $event['hash'] = Ledger::hash($event);
            $this->rows[] = $event;
        }
        $this->heads[] = ['stream' => "unit:$unit", 'seq' => $seq, 'hash' => $hash];
        if (count($this->rows) >= self::ROWS) {
            $this->flush();
        }
    }

    public function flush(): void
    {
        if ($this->rows === []) {
            return;
        }
        $columns = array_keys($this->rows[0]);
        $pdo = $this->db->getPdo();
        $quoted = array_map(
            fn (array $row) => '('.implode(',', array_map(
                fn (string $c) => match (true) {
                    $row[$c] === null => 'NULL',
                    is_int($row[$c]) => $row[$c],
                    default => $pdo->quote((string) $row[$c]),
                },
                $columns,
            )).')',
            $this->rows,
        );
        $pdo->exec('INSERT INTO ledger (`'.implode('`,`', $columns).'`) VALUES '.implode(',', $quoted));
        $this->db->table('ledger_streams')->insert($this->heads);
        $lines = '';
        foreach ($this->heads as $head) {
            $lines .= Anchors::line($head['stream'], $head['seq'], $head['hash']);
        }
        file_put_contents(Anchors::path(), $lines, FILE_APPEND | LOCK_EX);
        $this->written += count($this->rows);
        $this->rows = $this->heads = [];
    }

    private static function earlier(string $at, int $seconds): string
    {
        return gmdate('Y-m-d H:i:s', (int) strtotime(substr($at, 0, 19).' UTC') - $seconds).substr($at, 19);
    }
}
