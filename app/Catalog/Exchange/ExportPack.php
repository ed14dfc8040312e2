<?php

namespace App\Catalog\Exchange;

use Illuminate\Support\Facades\DB;

/** The whole catalog as a pack: imported into an empty database it gives the same pack again. */
final class ExportPack
{
    public function __construct(private readonly CatalogStore $store)
    {
    }

    /** @return \stdClass a pack that docs/formats/catalog-pack.schema.json accepts */
    public function export(string $name, string $edition, ?string $asOf = null): \stdClass
    {
        $pack = (object) [
            'format' => 'yard-catalog',
            'version' => PackUpgrade::VERSION,
            'name' => $name,
            'edition' => $edition,
        ];
        $families = DB::table('families')->pluck('id', 'code');
        foreach (CatalogMap::kinds() as $kind) {
            if (! CatalogMap::inFamily($kind)) {
                $pack->{$kind} = array_values($this->store->nodes($kind, $asOf));
            } else {
                foreach ($pack->families as $family) {
                    $family->{$kind} = array_values(
                        $this->store->nodes($kind, $asOf, (int) $families[$family->code]),
                    );
                }
            }
        }

        return $pack;
    }

    public static function encode(\stdClass $pack): string
    {
        return json_encode(
            $pack,
            JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
        )."\n";
    }
}
