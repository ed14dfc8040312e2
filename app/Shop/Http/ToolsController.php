<?php

namespace App\Shop\Http;

use App\Shop\Actions\KeepTools;
use App\Shop\Models\SpecialTool;
use Illuminate\Http\JsonResponse;

/** Compressors, drivers, pullers and fixtures, with place and inspection. */
final class ToolsController
{
    public function index(): JsonResponse
    {
        return $this->register();
    }

    public function add(ToolRequest $request, KeepTools $action): JsonResponse
    {
        $action->add($request->validated());

        return $this->register(201);
    }

    public function change(ToolRequest $request, string $tag, KeepTools $action): JsonResponse
    {
        $action->change($tag, $request->validated());

        return $this->register();
    }

    private function register(int $status = 200): JsonResponse
    {
        $tools = SpecialTool::query()->orderBy('kind')->orderBy('tag')->get();

        return response()->json([
            'kinds' => KeepTools::kinds(),
            'tools' => $tools->map(fn (SpecialTool $t): array => $t->shown())->all(),
        ], $status);
    }
}
