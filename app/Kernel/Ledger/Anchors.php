<?php

namespace App\Kernel\Ledger;

/** The chain heads written down a second time, outside the database: an append-only file of JSON lines. */
final class Anchors
{
    /** From this size on only the last head of each stream is kept, bytes. */
    private const LARGE = 16_000_000;

    public static function add(string $stream, int $seq, string $hash): void
    {
        $line = self::line($stream, $seq, $hash);
        if (@file_put_contents(self::path(), $line, FILE_APPEND | LOCK_EX) !== strlen($line)) {
            report(new \RuntimeException("The chain head of $stream could not be anchored in ".self::path()));
        } elseif (random_int(1, 1000) === 1) {
            self::compact();
        }
    }

    /**
     * @return array{heads: array<string, array{seq: int, hash: string}>, malformed: list<int>} latest anchored head of
     *     each stream; numbers of lines that are no anchor
     */
    public static function latest(): array
    {
        $file = @fopen(self::path(), 'r');
        $read = $file === false ? ['heads' => [], 'malformed' => []] : self::read($file);
        $file === false || fclose($file);

        return $read;
    }

    /** Keeps the file from growing by a line an event for ever. */
    public static function compact(int $large = self::LARGE): void
    {
        clearstatcache(true, self::path());
        if ((int) @filesize(self::path()) < $large) {
            return;
        }
        $file = @fopen(self::path(), 'r+');
        if ($file === false || ! flock($file, LOCK_EX)) {
            return;
        }
        $read = self::read($file);
        // What is no anchor is evidence: it stays to be found.
        if ($read['malformed'] === []) {
            $lines = '';
            foreach ($read['heads'] as $stream => $head) {
                $lines .= self::line((string) $stream, $head['seq'], $head['hash']);
            }
            rewind($file);
            fwrite($file, $lines);
            fflush($file);
            ftruncate($file, strlen($lines));
        }
        flock($file, LOCK_UN);
        fclose($file);
    }

    /**
     * After a restore: what was anchored after the moment of the backup goes; every chain keeps an anchor.
     *
     * @param  iterable<\stdClass>  $heads  the chain heads of the database: stream, seq, hash
     * @return array{left: int, renewed: int} anchors newer than the backup; of these, chains anchored anew
     */
    public static function trim(iterable $heads): array
    {
        $known = [];
        foreach ($heads as $head) {
            $known[$head->stream] = $head;
        }
        $lines = $anchored = [];
        $left = 0;
        foreach (@file(self::path()) ?: [] as $line) {
            $anchor = json_decode($line, true);
            if (! isset($anchor['stream'], $anchor['seq'], $anchor['hash'])) {
                $lines[] = $line; // evidence: it stays to be found
            } elseif ($anchor['seq'] <= ($known[$anchor['stream']]->seq ?? -1)) {
                $lines[] = $line;
                $anchored[$anchor['stream']] = true;
            } else {
                $left++;
            }
        }
        $bare = array_filter($known, fn (object $h) => $h->seq > 0 && ! isset($anchored[$h->stream]));
        foreach ($bare as $head) {
            $lines[] = self::line((string) $head->stream, $head->seq, $head->hash);
        }
        file_put_contents(self::path(), implode('', $lines), LOCK_EX);

        return ['left' => $left, 'renewed' => count($bare)];
    }

    /** One anchor as it stands in the file. */
    public static function line(string $stream, int $seq, string $hash): string
    {
        return json_encode(['stream' => $stream, 'seq' => $seq, 'hash' => $hash], JSON_THROW_ON_ERROR)."\n";
    }

    /**
     * @param  resource  $file
     * @return array{heads: array<string, array{seq: int, hash: string}>, malformed: list<int>}
     */
    private static function read($file): array
    {
        $heads = $malformed = [];
        for ($n = 1; ($line = fgets($file)) !== false; $n++) {
            $anchor = json_decode($line, true);
            if (! isset($anchor['stream'], $anchor['seq'], $anchor['hash'])) {
                $malformed[] = $n;
            } elseif (($heads[$anchor['stream']]['seq'] ?? 0) <= $anchor['seq']) {
                $heads[$anchor['stream']] = ['seq' => (int) $anchor['seq'], 'hash' => (string) $anchor['hash']];
            }
        }

        return ['heads' => $heads, 'malformed' => $malformed];
    }

    public static function path(): string
    {
        return config('yard.state').'/app/anchors/heads.jsonl';
    }
}
