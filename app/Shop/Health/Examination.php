<?php

namespace App\Shop\Health;

use App\Kernel\Ledger\Anchors;
use App\Shop\Queries\WaitingWork;
use Illuminate\Support\Carbon;

/** What the manager sees of the machine behind the shop; `./yard doctor` looks deeper, from outside. */
final class Examination
{
    /** Processes by the name of their pid file: what they do, and what stops without them. */
    private const PROCESSES = [
        'db' => ['Database', 'nothing can be read or written'],
        'queue' => ['Analyses', 'dyno runs stay unmeasured'],
        'imports' => ['Imports', 'packs and price lists wait'],
        'gateway' => ['Live data', 'dyno runs are not recorded'],
        'rig' => ['Test cell A', 'no unit can be run in it'],
        'rig-b' => ['Test cell B', 'no unit can be run in it'],
        'seal' => ['Seal of the ledger', 'chain heads stay where the web workers could rewrite them'],
        'backups' => ['Scheduled backups', 'no backup is made by itself'],
    ];

    private const START = 'Whoever keeps the machine runs ./yard doctor there, then ./yard start.';

    private const LEAST_FREE_MB = 400;

    private const LOW_FREE_MB = 4000;

    private const WAITS_TOO_LONG_S = 300;

    private const SEALED_WITHIN_S = 30;

    private const BACKUP_AT_LEAST_EACH_H = 48;

    public function __construct(private readonly WaitingWork $work)
    {
    }

    /** @return list<Vital> what is bad first */
    public function vitals(): array
    {
        $vitals = [...$this->processes(), $this->disk(), $this->backup(), ...$this->queues(), $this->seal()];
        $order = ['bad' => 0, 'weak' => 1, 'good' => 2];
        usort($vitals, fn (Vital $a, Vital $b): int => $order[$a->state] <=> $order[$b->state]);

        return $vitals;
    }

    /** @return list<Vital> */
    private function processes(): array
    {
        [$rigA, $rigB] = [config('yard.cells.A'), config('yard.cells.B')];
        $ports = array_filter(['gateway' => config('yard.gateway_port'), 'rig' => $rigA, 'rig-b' => $rigB]);
        $vitals = [];
        foreach (self::PROCESSES as $pidFile => [$name, $without]) {
            $vitals[] = match (true) {
                ! self::runs($pidFile) => Vital::bad($name, "Does not run: $without.", self::START),
                isset($ports[$pidFile]) && ! self::answers($ports[$pidFile]) => Vital::bad(
                    $name,
                    "Runs, but does not answer: $without.",
                    self::START,
                ),
                default => Vital::good($name, 'Runs.'),
            };
        }

        return $vitals;
    }

    private static function runs(string $pidFile): bool
    {
        $pid = (int) @file_get_contents(config('yard.state')."/run/$pidFile.pid");

        return $pid > 0 && is_dir("/proc/$pid");
    }

    private static function answers(int $port): bool
    {
        $socket = @fsockopen('127.0.0.1', $port, $code, $why, 0.5);
        $socket === false || fclose($socket);

        return $socket !== false;
    }

    private function disk(): Vital
    {
        $free = intdiv((int) @disk_free_space(config('yard.state')), 1_000_000);
        $says = number_format($free).' MB free.';
        $mend = 'Old backups and folders named .before-* can go first.';

        return match (true) {
            $free < self::LEAST_FREE_MB => Vital::bad('Disk', "$says The next photo may not fit.", $mend),
            $free < self::LOW_FREE_MB => Vital::weak('Disk', $says, $mend),
            default => Vital::good('Disk', $says),
        };
    }

    private function backup(): Vital
    {
        $last = json_decode((string) @file_get_contents(config('yard.state').'/run/last-backup.json'), true);
        $mend = 'Run ./yard backup on the machine, to another disk if there is one.';
        if (! isset($last['at'], $last['file'])) {
            return Vital::weak('Last backup', 'None since the shop was started here.', $mend);
        }
        $at = Carbon::parse($last['at']);
        $says = $at->diffForHumans().': '.$last['file'].', '.number_format($last['bytes'] / 1e6, 1).' MB.';

        return $at->diffInHours(now()) > self::BACKUP_AT_LEAST_EACH_H
            ? Vital::bad('Last backup', $says, $mend)
            : Vital::good('Last backup', $says);
    }

    /** @return list<Vital> */
    private function queues(): array
    {
        ['waiting' => $waiting, 'longest' => $longest, 'failed' => $failed] = $this->work->counted();
        $says = $waiting === 0 ? 'Nothing waits.' : "$waiting waiting, the longest for $longest s.";

        return [
            $longest > self::WAITS_TOO_LONG_S
                ? Vital::bad('Waiting work', $says, self::START)
                : Vital::good('Waiting work', $says),
            $failed > 0
                ? Vital::weak(
                    'Failed work',
                    "$failed piece(s) of work ended without a result.",
                    'Start the run or the import again; what was done of it is taken back already.',
                )
                : Vital::good('Failed work', 'None.'),
        ];
    }

    private function seal(): Vital
    {
        $inbox = Anchors::path();
        clearstatcache(true, $inbox);
        $waits = (int) @filesize($inbox) > 0 && time() - (int) @filemtime($inbox) > self::SEALED_WITHIN_S;

        return match (true) {
            $waits => Vital::bad('Sealed heads', 'New heads of the ledger are not taken over.', self::START),
            @fileowner(dirname(Anchors::sealedPath())) === posix_geteuid() => Vital::weak(
                'Sealed heads',
                'The seal belongs to the user of the web workers, who could rewrite it.',
                'Start the shop as root, in a folder every user can enter.',
            ),
            default => Vital::good('Sealed heads', 'Taken over as they come, by another user than the web workers.'),
        };
    }
}
