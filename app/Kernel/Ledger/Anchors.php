<?php

namespace App\Kernel\Ledger;

/** The chain heads written down a second time, outside the database: an append-only file of JSON lines. */
final class Anchors
{
    public static function add(string $stream, int $seq, string $hash): void
    {
        $line = json_encode(['stream' => $stream, 'seq' => $seq, 'hash' => $hash], JSON_THROW_ON_ERROR)."\n";
        if (@file_put_contents(self::path(), $line, FILE_APPEND | LOCK_EX) !== strlen($line)) {
            report(new \RuntimeException("The chain head of $stream could not be anchored in ".self::path()));
        }
    }

    /** @return array<string, array{seq: int, hash: string}> latest anchored head of each stream */
    public static function latest(): array
    {
        $heads = [];
        $file = @fopen(self::path(), 'r');
        while ($file !== false && ($line = fgets($file)) !== false) {
            $anchor = json_decode($line, true);
            if (is_array($anchor) && ($heads[$anchor['stream']]['seq'] ?? 0) <= $anchor['seq']) {
                $heads[$anchor['stream']] = ['seq' => (int) $anchor['seq'], 'hash' => (string) $anchor['hash']];
            }
        }

        return $heads;
    }

    public static function path(): string
    {
        return config('yard.state').'/app/anchors/heads.jsonl';
    }
}
