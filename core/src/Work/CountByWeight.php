<?php

declare(strict_types=1);

namespace Yard\Core\Work;

use Yard\Core\BadInput;

/**
 * Pieces counted on a scale: net weight over the weight of one, as long as the doubt of scale and pieces together stays
 * below half a piece.
 */
final readonly class CountByWeight
{
    /** The doubt may reach so much of a piece before a count is no longer a count. */
    private const HALF = 0.5;

    /**
     * @param  int  $pieces  the nearest count
     * @param  float  $doubt  of the count, in pieces: scale and spread of the pieces, the larger one does not hide
     * @param  float  $off  how far the weight is from a whole number of pieces, in pieces
     * @param  int  $most  pieces that can still be told apart from one more
     */
    private function __construct(public int $pieces, public float $doubt, public float $off, public int $most)
    {
    }

    /**
     * @param  float  $netG  grams on the scale, without the basket
     * @param  float  $pieceG  grams of one piece
     * @param  float  $scaleG  half of what the scale can tell, grams
     * @param  float  $spread  how much pieces of a kind differ from their mean, as a share of it
     *
     * @throws BadInput where a weight is impossible, too many lie on the scale to be told apart, or something else
     *     than whole pieces does
     */
    public static function of(float $netG, float $pieceG, float $scaleG, float $spread): self
    {
        if (! is_finite($netG) || $netG < 0.0) {
            throw new BadInput(
                'range',
                sprintf('The scale shows %s g: less than nothing. Tare it with the empty basket.', round($netG, 3)),
                '/net_g',
            );
        }
        if (! is_finite($pieceG) || $pieceG <= 0.0) {
            throw new BadInput('range', 'One piece must weigh something.', '/piece_g');
        }
        $count = $netG / $pieceG;
        $pieces = (int) round($count);
        // Errors of the scale do not grow with the count; those of the weight of one do, in proportion.
        $doubt = $scaleG / $pieceG + $spread * $count;
        $most = $spread > 0.0 ? (int) floor(max(0.0, (self::HALF - $scaleG / $pieceG) / $spread)) : PHP_INT_MAX;
        if ($doubt >= self::HALF) {
            throw new BadInput(
                'range',
                $most < 1
                    ? 'One piece weighs too little for this scale: count by hand.'
                    : "By weight $most can be told from ".($most + 1).', not more: weigh in lots, or count by hand.',
                '/net_g',
            );
        }
        $off = abs($count - $pieces);
        if ($off > max($doubt, 0.05)) {
            throw new BadInput(
                'range',
                sprintf('%s g are %.2f pieces: something else lies with them.', round($netG, 3), $count),
                '/net_g',
            );
        }

        return new self($pieces, $doubt, $off, $most);
    }
}
