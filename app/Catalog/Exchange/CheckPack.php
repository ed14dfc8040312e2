<?php

namespace App\Catalog\Exchange;

use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Input;

/** Holds a pack, or one entry of it, against the published schema and against what it names. */
final class CheckPack
{
    private const SCHEMA = 'docs/formats/catalog-pack.schema.json';

    /** @throws BadPack */
    public static function decoded(string $json): \stdClass
    {
        $pack = json_decode($json, false, 64);
        if (! ($pack instanceof \stdClass)) {
            throw new BadPack([
                ['pointer' => '', 'detail' => 'The file is not a JSON object: '.json_last_error_msg().'.'],
            ]);
        }
        PackUpgrade::upgrade($pack);
        PackShorthand::expand($pack);
        self::obey($pack, self::schema());
        $errors = [...(new CheckReferences($pack))->errors(), ...self::listsOfShop($pack)];
        foreach ($pack->families as $i => $family) {
            $errors = [...$errors, ...self::train($family, "/families/$i/train")];
        }
        if ($errors !== []) {
            throw new BadPack($errors);
        }

        return $pack;
    }

    /**
     * One entry as the editor sends it, against its part of the schema. A family entry is its head only: what lives
     * in it is edited by its own kind.
     *
     * @throws BadPack
     */
    public static function entry(string $kind, \stdClass $node): void
    {
        self::obey($node, self::entrySchema($kind));
        if ($kind === 'families' && ($errors = self::train($node, '/train')) !== []) {
            throw new BadPack($errors);
        }
    }

    public static function entrySchema(string $kind): \stdClass
    {
        $properties = self::schema()->properties;
        if (CatalogMap::inFamily($kind)) {
            return $properties->families->items->properties->{$kind}->items;
        }
        $schema = $properties->{$kind}->items;
        if ($kind === 'families') {
            $head = array_flip(['code', 'name', 'topology', 'train', 'body']);
            $schema->properties = (object) array_intersect_key((array) $schema->properties, $head);
            $schema->required = array_keys($head);
        }

        return $schema;
    }

    private static function schema(): \stdClass
    {
        return json_decode((string) file_get_contents(base_path(self::SCHEMA)));
    }

    private static function obey(\stdClass $document, \stdClass $schema): void
    {
        $errors = self::violations($document, $schema);
        if ($errors !== []) {
            throw new BadPack($errors);
        }
    }

    /** @return list<array{pointer: string, detail: string}> */
    public static function violations(\stdClass $document, \stdClass $schema): array
    {
        $validator = new Validator();
        $validator->setMaxErrors(20);
        $error = $validator->validate($document, $schema)->error();
        $errors = [];
        foreach ($error === null ? [] : (new ErrorFormatter())->format($error, true) as $pointer => $messages) {
            $errors[] = [
                'pointer' => $pointer === '/' ? '' : (string) $pointer,
                'detail' => rtrim($messages[0], '.').'.',
            ];
        }

        return $errors;
    }

    /** @return list<array{pointer: string, detail: string}> */
    private static function listsOfShop(\stdClass $pack): array
    {
        $errors = [];
        $seen = array_merge(...array_map(
            fn (\stdClass $e): array => array_column($e->body->features ?? [], 'id'),
            $pack->evidence ?? [],
        ));
        foreach ($pack->vocabularies as $i => $vocabulary) {
            $operations = $vocabulary->body->operations ?? null;
            if (is_array($operations) && array_is_list($operations)) {
                $at = "/vocabularies/$i/body/operations";
                $errors = [...$errors, ...CheckOperations::ofShop($operations, $seen, $at)];
            }
        }

        return $errors;
    }

    /** @return list<array{pointer: string, detail: string}> */
    private static function train(\stdClass $family, string $at): array
    {
        try {
            ApplyChart::read(Input::of($family->train));

            return [];
        } catch (BadInput $e) {
            return [['pointer' => $at.$e->path, 'detail' => $e->getMessage()]];
        }
    }
}
