<?php

namespace App\Yard\Http;

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
        return response()->file(config('yard.state').'/app/'.$photo->path, [
            'Content-Type' => 'image/jpeg',
            'Cache-Control' => 'private, max-age=31536000, immutable',
        ]);
    }
}
