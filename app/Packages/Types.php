<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\OwnType;
use App\Models\RecordKind;
use App\Record\Record;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\PackageTypes;
use Cellarium\Core\Package\Type\TypeRefused;
use Cellarium\Core\Package\Type\TypeSource;
use Cellarium\Core\Package\Type\TypeYaml;

/** The package types that ship, and those of the agency; one of its own goes before a shipped one of the same name. */
final class Types implements TypeSource
{
    private readonly TypeYaml $yaml;

    /** @var array<string, PackageType> by what stands in its file; checking one takes milliseconds */
    private array $parsed = [];

    public function __construct(private readonly string $shipped)
    {
        $this->yaml = new TypeYaml((string) file_get_contents("$shipped/schema.json"));
    }

    public function types(): PackageTypes
    {
        $parsed = [];
        foreach ($this->texts() as $text) {
            $parsed[$text] = $this->parsed[$text] ?? $this->yaml->parse($text);
        }
        $this->parsed = $parsed;

        return new PackageTypes($parsed);
    }

    /** @return array<string, string> as YAML, by id */
    public function texts(): array
    {
        $texts = $this->shippedTexts();
        foreach (OwnType::orderBy('id')->get() as $own) {
            $texts[$own->id] = $own->yaml;
        }

        return $texts;
    }

    /** @return array<string, string> */
    public function shippedTexts(): array
    {
        $texts = [];
        foreach (glob("$this->shipped/*.yaml") ?: [] as $file) {
            $texts[basename($file, '.yaml')] = (string) file_get_contents($file);
        }

        return $texts;
    }

    /** @throws TypeRefused nothing is changed then */
    public function save(string $yaml): PackageType
    {
        $yaml = rtrim($yaml)."\n";
        $type = $this->yaml->parse($yaml);
        $isNew = ! isset($this->texts()[$type->id]);
        OwnType::updateOrCreate(['id' => $type->id], ['yaml' => $yaml]);
        Record::write(
            RecordKind::PackageTypeSaved,
            "The package type $type->label ($type->id) was ".($isNew ? 'added' : 'changed'),
        );

        return $type;
    }

    /** What is the agency's own goes; of a shipped one what ships counts again. */
    public function remove(string $id): void
    {
        if (OwnType::whereKey($id)->delete() > 0) {
            Record::write(
                RecordKind::PackageTypeRemoved,
                isset($this->shippedTexts()[$id])
                    ? "The package type $id is as it ships again"
                    : "The package type $id was removed",
            );
        }
    }
}
