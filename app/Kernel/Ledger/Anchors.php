<?php

namespace App\Kernel\Ledger;

/**
 * The chain heads written down a second time, outside the database: one JSON line an event. The web workers add to one
 * file; a process of its own user (Seal) takes the lines from there into a file they cannot write.
 */
final class Anchors
{
    /** @return bool false where it could not be written, such as on a full disk */
    public static function add(string $stream, int $seq, string $hash): bool
    {
        $line = self::line($stream, $seq, $hash);

        return @file_put_contents(self::path(), $line, FILE_APPEND | LOCK_EX) === strlen($line);
    }

    /**
     * @return array{heads: array<string, array{seq: int, hash: string}>, malformed: list<int>, conflicts: list<string>}
     *     latest anchored head of each stream; numbers of lines that are no anchor; streams of which two heads were
     *     anchored under one number, or a later one was set back
     */
    public static function latest(): array
    {
        return self::told((function () {
            yield from Seal::lines(self::sealedPath());
            $in = @fopen(self::path(), 'r');
            while ($in !== false && ($line = fgets($in)) !== false) {
                yield ['anchor' => rtrim($line, "\n")];
            }
            $in === false || fclose($in);
        })());
    }

    /**
     * @param  iterable<array{anchor: string}>  $lines
     * @return array{heads: array<string, array{seq: int, hash: string}>, malformed: list<int>, conflicts: list<string>}
     */
    public static function told(iterable $lines): array
    {
        $heads = $malformed = $conflicts = [];
        $n = 0;
        foreach ($lines as $line) {
            $n++;
            $anchor = self::parse($line['anchor']);
            if ($anchor === null) {
                $malformed[] = $n;

                continue;
            }
            ['stream' => $stream, 'seq' => $seq, 'hash' => $hash] = $anchor;
            $known = $heads[$stream] ?? ['seq' => 0, 'hash' => ''];
            if ($seq > $known['seq']) {
                $heads[$stream] = ['seq' => $seq, 'hash' => $hash];
            } elseif ($seq === $known['seq'] && $hash !== $known['hash']) {
                $conflicts[$stream] = $stream;
            }
        }

        return ['heads' => $heads, 'malformed' => $malformed, 'conflicts' => array_values($conflicts)];
    }

    /** @return array{stream: string, seq: int, hash: string}|null */
    public static function parse(string $line): ?array
    {
        $anchor = json_decode($line, true);

        return isset($anchor['stream'], $anchor['seq'], $anchor['hash'])
            ? [
                'stream' => (string) $anchor['stream'],
                'seq' => (int) $anchor['seq'],
                'hash' => (string) $anchor['hash'],
            ]
            : null;
    }

    /**
     * After a restore: what was anchored after the moment of the backup goes; every chain keeps an anchor. All of it is
     * to be sealed anew.
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
        foreach (self::all() as $line) {
            $anchor = self::parse($line);
            if ($anchor === null) {
                $lines[] = "$line\n"; // evidence: it stays to be found
            } elseif ($anchor['seq'] <= ($known[$anchor['stream']]->seq ?? -1)) {
                $lines[] = "$line\n";
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

    public static function path(): string
    {
        return config('yard.state').'/app/anchors/heads.jsonl';
    }

    public static function sealedPath(): string
    {
        return config('yard.state').'/sealed/heads.jsonl';
    }

    /** @return list<string> */
    private static function all(): array
    {
        $sealed = array_column(iterator_to_array(Seal::lines(self::sealedPath()), false), 'anchor');
        $waiting = array_map(fn (string $line) => rtrim($line, "\n"), @file(self::path()) ?: []);

        return [...$sealed, ...$waiting];
    }
}
