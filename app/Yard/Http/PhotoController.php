<?php

namespace App\Yard\Http;

use App\Kernel\Refusal;
use App\Yard\Actions\AttachPhoto;
use App\Yard\Models\Photo;
use App\Yard\Models\Unit;
use Illuminate\Http\JsonResponse;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

final class PhotoController
{
    public function store(AttachPhotoRequest $request, string $number, AttachPhoto $action): JsonResponse
    {
        $in = $request->validated();
        $photo = $action->attach(
            Unit::byNumber($number),
            $in['photo'],
            $in['place'],
            $in['station'] ?? 'receiving',
            $request->person(),
        );

        return response()->json(
            ['id' => $photo->id, 'place' => $photo->place, 'width' => $photo->width, 'height' => $photo->height],
            201,
        );
    }

    public function show(Photo $photo): BinaryFileResponse
    {
        $file = config('yard.state').'/app/'.$photo->path;
        if (! is_file($file)) {
            throw new Refusal('The file of this picture is not there.', 404);
        }
        if (hash_file('sha256', $file) !== $photo->sha256) {
            throw new Refusal('The file of this picture is not the one that was taken.', 409);
        }

        return response()->file($file, [
            'Content-Type' => 'image/jpeg',
            'Cache-Control' => 'private, max-age=31536000, immutable',
        ]);
    }
}
