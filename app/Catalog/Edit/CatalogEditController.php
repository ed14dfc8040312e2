<?php

namespace App\Catalog\Edit;

use App\Catalog\Exchange\CatalogMap;
use App\Catalog\Exchange\CatalogStore;
use App\Catalog\Exchange\CheckPack;
use App\Catalog\Exchange\CsvKind;
use App\Catalog\Exchange\ExportPack;
use App\Catalog\Exchange\ImportPack;
use App\Catalog\Exchange\UploadCsv;
use App\Catalog\Models\CsvImport;
use App\Catalog\Models\Family;
use App\Kernel\Refusal;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Carbon;

/** The catalog desk: every entry on screen, with its history, packs in and out, and CSV files. */
final class CatalogEditController
{
    private const PAGE = 50;

    public function __construct(private readonly CatalogStore $store)
    {
    }

    public function kinds(): JsonResponse
    {
        return response()->json([
            'kinds' => array_map(
                fn (string $k) => [
                    'kind' => $k,
                    'title' => CatalogMap::of($k)['title'],
                    'inFamily' => CatalogMap::inFamily($k),
                    'claims' => isset(CatalogMap::of($k)['spec']),
                ],
                CatalogMap::kinds(),
            ),
            'families' => Family::query()
                ->orderBy('code')
                ->get(['code', 'name'])
                ->map(fn (Family $f) => ['code' => $f->code, 'name' => $f->name]),
            'csv' => array_map(
                fn (string $k, array $c) => [
                    'kind' => $k,
                    'title' => $c['title'],
                    'columns' => $c['required'],
                    'optional' => $c['optional'],
                ],
                array_keys(CsvKind::KINDS),
                CsvKind::KINDS,
            ),
        ]);
    }

    public function entries(Request $request): JsonResponse
    {
        $in = $request->validate([
            'kind' => 'required|string|max:40',
            'family' => 'nullable|string|max:40',
            'q' => 'nullable|string|max:60',
            'after' => 'nullable|string|max:200',
            'asOf' => 'nullable|date',
        ]);
        $kind = $this->known($in['kind']);
        $keys = (new EntryList($this->store))->page(
            $kind,
            $in['family'] ?? null,
            $in['q'] ?? '',
            $in['after'] ?? null,
            self::moment($in['asOf'] ?? null),
            self::PAGE,
        );

        return response()->json($keys);
    }

    public function entry(Request $request, EditEntry $edit): JsonResponse
    {
        $in = $request->validate([
            'kind' => 'required|string|max:40',
            'key' => 'nullable|string|max:200',
            'asOf' => 'nullable|date',
        ]);
        $kind = $this->known($in['kind']);
        $key = $in['key'] ?? null;
        $node =
            $key === null
                ? null
                : $this->store->nodes($kind, self::moment($in['asOf'] ?? null), null, [$key])[$key] ??
                    throw new Refusal(
                        'There is no such entry'.(isset($in['asOf']) ? ' at that moment.' : '.'),
                        404,
                    );

        return response()->json([
            'kind' => $kind,
            'key' => $key,
            'node' => $node,
            'seen' => $key === null ? null : $edit->version($kind, $key),
            'schema' => CheckPack::entrySchema($kind),
        ]);
    }

    public function history(Request $request, CatalogHistory $history): JsonResponse
    {
        $in = $request->validate(['kind' => 'required|string|max:40', 'key' => 'required|string|max:200']);

        return response()->json(['versions' => $history->of($this->known($in['kind']), $in['key'])]);
    }

    public function diff(Request $request, CatalogHistory $history): JsonResponse
    {
        $in = $request->validate(['from' => 'required|date', 'to' => 'required|date|after_or_equal:from']);

        return response()->json([
            'entries' => $history->between((string) self::moment($in['from']), (string) self::moment($in['to'])),
        ]);
    }

    public function save(Request $request, EditEntry $edit): JsonResponse
    {
        $in = $request->validate([
            'kind' => 'required|string|max:40',
            'family' => 'nullable|string|max:40',
            'key' => 'nullable|string|max:200',
            'seen' => 'nullable|string|max:100',
        ]);
        // Decoded anew: the framework's input knows no difference between {} and [].
        $node = json_decode($request->getContent())->node ?? null;
        $kind = $this->known($in['kind']);
        if (! ($node instanceof \stdClass)) {
            throw Refusal::at('/node', 'The entry itself is missing.');
        }
        $key = $edit->save($kind, $in['family'] ?? null, $in['key'] ?? null, $node, $in['seen'] ?? null);

        return response()->json([
            'kind' => $kind,
            'key' => $key,
            'node' => $this->store->nodes($kind, null, null, [$key])[$key],
            'seen' => $edit->version($kind, $key),
            'schema' => CheckPack::entrySchema($kind),
        ]);
    }

    public function choose(Request $request, EditEntry $edit, ChooseClaim $action): JsonResponse
    {
        $in = $request->validate(
            [
                'kind' => 'required|string|max:40',
                'key' => 'required|string|max:200',
                'claim' => 'required|integer|min:0',
                'reason' => 'required|string|max:300',
                'seen' => 'required|string|max:100',
            ],
            ['reason.required' => 'Say why the house picks this one.'],
        );
        $kind = $this->known($in['kind']);
        $action->choose($kind, $in['key'], $in['claim'], $in['reason'], $in['seen'], $request->user());

        return response()->json([
            'kind' => $kind,
            'key' => $in['key'],
            'node' => $this->store->nodes($kind, null, null, [$in['key']])[$in['key']],
            'seen' => $edit->version($kind, $in['key']),
            'schema' => CheckPack::entrySchema($kind),
        ]);
    }

    public function remove(Request $request, EditEntry $edit): JsonResponse
    {
        $in = $request->validate(['kind' => 'required|string|max:40', 'key' => 'required|string|max:200']);
        $edit->remove($this->known($in['kind']), $in['key']);

        return response()->json(['removed' => $in['key']]);
    }

    public function export(Request $request, ExportPack $export): Response
    {
        $in = $request->validate(['asOf' => 'nullable|date']);

        return response(
            ExportPack::encode(
                $export->export('Catalog of the house', now()->format('Y-m-d'), self::moment($in['asOf'] ?? null)),
            ),
            200,
            [
                'Content-Type' => 'application/json',
                'Content-Disposition' => 'attachment; filename="catalog-'.now()->format('Y-m-d').'.json"',
            ],
        );
    }

    public function import(Request $request, ImportPack $import): JsonResponse
    {
        $file = $request->validate(
            ['pack' => 'required|file|max:24576'],
            ['pack.max' => 'The file is larger than 24 MB.', 'pack.uploaded' => 'The file is larger than 24 MB.'],
        )['pack'];

        return response()->json([
            'kinds' => $import->import((string) file_get_contents($file->getRealPath()), fn () => null),
        ]);
    }

    public function uploads(): JsonResponse
    {
        return response()->json([
            'imports' => CsvImport::query()->latest('id')->limit(10)->get()->map(self::upload(...)),
        ]);
    }

    public function showUpload(CsvImport $import): JsonResponse
    {
        return response()->json(self::upload($import));
    }

    public function uploadCsv(Request $request, UploadCsv $action): JsonResponse
    {
        $in = $request->validate(
            [
                'file' => 'required|file|max:24576',
                'kind' => 'required|in:'.implode(',', array_keys(CsvKind::KINDS)),
            ],
            ['file.max' => 'The file is larger than 24 MB.', 'file.uploaded' => 'The file is larger than 24 MB.'],
        );

        return response()->json(
            self::upload($action->upload($in['kind'], $in['file'], $request->user())->refresh()),
            201,
        );
    }

    public function confirmCsv(Request $request, CsvImport $import, UploadCsv $action): JsonResponse
    {
        $action->confirm($import, $request->user());

        return response()->json(self::upload($import->refresh()));
    }

    public function cancelCsv(CsvImport $import, UploadCsv $action): JsonResponse
    {
        $action->cancel($import);

        return response()->json(self::upload($import->refresh()));
    }

    /** @return array<string, mixed> */
    private static function upload(CsvImport $i): array
    {
        return [
            'id' => $i->id,
            'kind' => $i->kind,
            'filename' => $i->filename,
            'state' => $i->state,
            'total' => $i->total,
            'done' => $i->done,
            'newRows' => $i->new_rows,
            'changedRows' => $i->changed_rows,
            'sameRows' => $i->same_rows,
            'errorRows' => $i->error_rows,
            'errors' => $i->errors,
            'preview' => $i->preview,
            'failure' => $i->failure,
            'startedAt' => $i->started_at->toIso8601ZuluString(),
        ];
    }

    private function known(string $kind): string
    {
        return CatalogMap::has($kind)
            ? $kind
            : throw Refusal::at('/kind', "There is no kind \"$kind\" in the catalog.");
    }

    /** A day means its end: "as of last Tuesday" includes what was written on it. */
    private static function moment(?string $typed): ?string
    {
        return $typed === null
            ? null
            : (preg_match('/^\d{4}-\d\d-\d\d$/', $typed) === 1
                ? "$typed 23:59:59.999999"
                : Carbon::parse($typed)->utc()->format('Y-m-d H:i:s.u'));
    }
}
