<?php

namespace App\Yard\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Yard\Models\Photo;
use App\Yard\Models\Unit;
use Illuminate\Http\UploadedFile;
use Intervention\Image\ImageManager;

/** Keeps a photo of a unit: checked, turned upright, re-encoded, without location data. */
final class AttachPhoto
{
    private const LARGEST_PIXELS = 25_000_000;

    private const EDGE = 2000;

    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function attach(Unit $unit, UploadedFile $file, string $place, string $station, Person $by): Photo
    {
        $size = @getimagesize($file->getRealPath());
        if ($size === false || ! in_array($size[2], [IMAGETYPE_JPEG, IMAGETYPE_PNG, IMAGETYPE_WEBP], true)) {
            throw Refusal::at('/photo', 'This file is not a picture (JPEG, PNG or WebP).');
        }
        if ($size[0] * $size[1] > self::LARGEST_PIXELS || min($size[0], $size[1]) < 16) {
            throw Refusal::at(
                '/photo',
                'The picture must have at least 16 pixels a side and at most 25 million in all.',
            );
        }
        try {
            $image = (new ImageManager(['driver' => 'gd']))->make($file->getRealPath())->orientate();
            $image->resize(self::EDGE, self::EDGE, function ($limit): void {
                $limit->aspectRatio();
                $limit->upsize();
            });
            $jpeg = (string) $image->encode('jpg', 82);
        } catch (\Intervention\Image\Exception\NotReadableException) {
            throw Refusal::at('/photo', 'This picture is damaged and cannot be read.');
        }
        $sha = hash('sha256', $jpeg);
        $path = 'photos/'.substr($sha, 0, 2)."/$sha.jpg";
        $full = config('yard.state')."/app/$path";
        @mkdir(dirname($full), 0775, true);
        if (file_put_contents($full, $jpeg) !== strlen($jpeg)) {
            throw new Refusal('The picture could not be stored: the disk may be full.', 507);
        }
        $photo = Photo::create([
            'unit_id' => $unit->id,
            'place' => $place,
            'station' => $station,
            'path' => $path,
            'width' => $image->width(),
            'height' => $image->height(),
            'sha256' => $sha,
            'taken_by' => $by->id,
            'created_at' => now(),
        ]);
        $this->ledger->onUnit($unit, 'photo.taken', ['place' => $place, 'station' => $station, 'sha256' => $sha]);

        return $photo;
    }
}
