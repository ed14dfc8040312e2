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
use App\Shop\Http\SignedRequest;
use Illuminate\Http\JsonResponse;
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

    public function entries(EntryListRequest $request): JsonResponse
    {
        $in = $request->validated();
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

    public function entry(EntryRequest $request, EditEntry $edit): JsonResponse
    {
        $in = $request->validated();
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

    public function history(EntryHistoryRequest $request, CatalogHistory $history): JsonResponse
    {
        $in = $request->validated();

        return response()->json(['versions' => $history->of($this->known($in['kind']), $in['key'])]);
    }

    public function diff(CatalogDiffRequest $request, CatalogHistory $history): JsonResponse
    {
        $in = $request->validated();

        return response()->json([
            'entries' => $history->between((string) self::moment($in['from']), (string) self::moment($in['to'])),
        ]);
    }

    public function save(SaveEntryRequest $request, EditEntry $edit): JsonResponse
    {
        $in = $request->validated();
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

    public function choose(ChooseClaimRequest $request, EditEntry $edit, ChooseClaim $action): JsonResponse
    {
        $in = $request->validated();
        $kind = $this->known($in['kind']);
        $action->choose($kind, $in['key'], $in['claim'], $in['reason'], $in['seen'], $request->person());

        return response()->json([
            'kind' => $kind,
            'key' => $in['key'],
            'node' => $this->store->nodes($kind, null, null, [$in['key']])[$in['key']],
            'seen' => $edit->version($kind, $in['key']),
            'schema' => CheckPack::entrySchema($kind),
        ]);
    }

    public function remove(RemoveEntryRequest $request, EditEntry $edit): JsonResponse
    {
        $in = $request->validated();
        $edit->remove($this->known($in['kind']), $in['key']);

        return response()->json(['removed' => $in['key']]);
    }

    public function export(ExportPackRequest $request, ExportPack $export): Response
    {
        $in = $request->validated();

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

    public function import(ImportPackRequest $request, ImportPack $import): JsonResponse
    {
        $file = $request->validated()['pack'];

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

    public function uploadCsv(UploadCsvRequest $request, UploadCsv $action): JsonResponse
    {
        $in = $request->validated();

        return response()->json(
            self::upload($action->upload($in['kind'], $in['file'], $request->person())->refresh()),
            201,
        );
    }

    public function confirmCsv(SignedRequest $request, CsvImport $import, UploadCsv $action): JsonResponse
    {
        $action->confirm($import, $request->person());

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
