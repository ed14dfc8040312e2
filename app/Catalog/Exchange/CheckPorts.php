<?php

namespace App\Catalog\Exchange;

/** The face where air is blown in: one port for every air check, each in its place, none over another. */
final class CheckPorts
{
    /** @return list<array{pointer: string, detail: string}> */
    public static function errors(\stdClass $family, string $at): array
    {
        $ports = $family->body->ports ?? null;
        if ($ports === null) {
            return [];
        }
        $at .= '/body/ports';
        $errors = [];
        $byNumber = [];
        foreach ($ports->list as $i => $port) {
            isset($byNumber[$port->number]) &&
                $errors[] = ["$at/list/$i/number", "There are two ports with the number $port->number."];
            self::isInside($port->at, $ports->outline) ||
                $errors[] = ["$at/list/$i/at", "The port $port->number lies outside the face."];
            foreach ($byNumber as $other) {
                self::overlap($port, $other) &&
                    $errors[] = ["$at/list/$i/at", "The ports $other->number and $port->number lie over each other."];
            }
            $byNumber[$port->number] ??= $port;
        }
        array_push(
            $errors,
            ...self::covers($ports->list, $byNumber, $at),
            ...self::fills($family, $ports->list, $at),
        );

        return array_map(fn (array $e): array => ['pointer' => $e[0], 'detail' => $e[1]], $errors);
    }

    /**
     * @param  list<\stdClass>  $list
     * @param  array<int, \stdClass>  $known
     * @return list<array{string, string}>
     */
    private static function covers(array $list, array $known, string $at): array
    {
        $errors = [];
        foreach ($list as $i => $port) {
            foreach ($port->cover ?? [] as $k => $other) {
                if (! isset($known[$other]) || $other === $port->number) {
                    $errors[] = ["$at/list/$i/cover/$k", "There is no other port $other to hold shut."];
                }
            }
        }

        return $errors;
    }

    /**
     * Every element that is checked with air has one port, and every port of an element its check.
     *
     * @param  list<\stdClass>  $list
     * @return list<array{string, string}>
     */
    private static function fills(\stdClass $family, array $list, string $at): array
    {
        $checked = array_map(fn (\stdClass $a) => $a->body->element, $family->airChecks);
        $ports = array_filter(array_map(fn (\stdClass $p) => $p->element ?? null, $list));
        $errors = [];
        foreach ($ports as $i => $element) {
            in_array($element, $checked, true) ||
                $errors[] = ["$at/list/$i/element", "No air check of this family is of \"$element\"."];
        }
        foreach ($checked as $element) {
            $n = count(array_keys($ports, $element, true));
            $n === 1 || $errors[] = ["$at/list", "The air check of \"$element\" needs one port and has $n."];
        }

        return $errors;
    }

    private static function overlap(\stdClass $a, \stdClass $b): bool
    {
        return hypot($a->at[0] - $b->at[0], $a->at[1] - $b->at[1]) < ($a->bore + $b->bore) / 2;
    }

    /**
     * Even-odd rule.
     *
     * @param  array{float, float}  $point
     * @param  list<array{float, float}>  $outline
     */
    private static function isInside(array $point, array $outline): bool
    {
        $inside = false;
        foreach ($outline as $n => [$x, $y]) {
            [$bx, $by] = $outline[$n === 0 ? count($outline) - 1 : $n - 1];
            if (($y > $point[1]) !== ($by > $point[1])) {
                $inside = $inside !== ($point[0] < $x + (($point[1] - $y) / ($by - $y)) * ($bx - $x));
            }
        }

        return $inside;
    }
}
