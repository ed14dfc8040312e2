<?php

namespace App\Stations\Dyno;

use Illuminate\Support\Facades\Cache;
use React\EventLoop\Loop;
use React\Socket\ConnectionInterface;
use React\Socket\Connector;

/**
 * What the rig of a cell says while nothing runs on it: the gateway looks every few seconds, the screens read what it
 * saw. While a run is on, the cable is the run's alone.
 */
final class RigWatch
{
    public const EVERY_S = 2.0;

    /** What was seen longer ago is not shown any more, seconds. */
    private const KEPT_S = 10;

    private const PATIENCE_S = 1.0;

    /** A greeting is one short line. */
    private const LONGEST_LINE = 10_000;

    public static function look(string $cell, int $port): void
    {
        (new Connector(['timeout' => self::PATIENCE_S]))->connect("127.0.0.1:$port")->then(
            fn (ConnectionInterface $rig) => self::greeted($cell, $rig),
            fn () => self::seen($cell, RigState::Silent),
        );
    }

    /** A rig that takes the plug and says nothing is left again: it does not answer either. */
    private static function greeted(string $cell, ConnectionInterface $rig): void
    {
        $said = '';
        $hello = null;
        $patience = Loop::addTimer(self::PATIENCE_S, $rig->close(...));
        $rig->on('data', function (string $data) use ($rig, &$said, &$hello): void {
            $said .= $data;
            if (str_contains($said, "\n") || strlen($said) >= self::LONGEST_LINE) {
                $hello = json_decode((string) strstr($said, "\n", true), true);
                $rig->close();
            }
        });
        $rig->on('close', function () use ($cell, $patience, &$hello): void {
            Loop::cancelTimer($patience);
            self::seen($cell, match (is_array($hello) ? $hello['emergency'] ?? null : null) {
                true => RigState::Stopped,
                false => RigState::Ready,
                default => RigState::Silent,
            });
        });
    }

    /** A run is on the cable: what ails the rig ends it and says so. */
    public static function runs(string $cell): void
    {
        self::seen($cell, RigState::Ready);
    }

    private static function seen(string $cell, RigState $state): void
    {
        rescue(fn () => Cache::put("rig.$cell", $state->value, self::KEPT_S));
    }

    public static function told(string $cell): RigState
    {
        return RigState::tryFrom((string) rescue(fn () => Cache::get("rig.$cell"), '')) ?? RigState::Unwatched;
    }
}
