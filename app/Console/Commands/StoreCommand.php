<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\RecordKind;
use App\Record\Record;
use App\Storage\Stores;
use App\Work\Wakes;
use Illuminate\Support\Facades\Artisan;

final class StoreCommand extends CellariumCommand
{
    protected const BY_ITSELF = true;

    protected $signature = 'cellarium:store '
        .'{--starting : say nothing where all is well} '
        .'{--rotate : make another key for what is kept from now on} '
        .'{--forget-keys : take out those that nothing is sealed with any more} {--json}';

    protected $description = 'Say where contents lie and with which keys they are sealed, and whether they can be read';

    public function handle(): int
    {
        if ($this->option('rotate') === true) {
            $keys = Stores::rotate();
            Record::write(RecordKind::KeysChanged, "Contents are sealed with a new key from now on: $keys->current");
            // Workers have read the keys as they began; what they have in hand is done first.
            Artisan::call('queue:restart');
            Wakes::here()->everybody();
        }
        $forgotten = $this->option('forget-keys') === true ? Stores::forgetKeys() : [];
        $forgotten === [] || Record::write(
            RecordKind::KeysChanged,
            'Keys that nothing is sealed with any more were taken out: '.implode(', ', $forgotten),
        );
        $settings = Stores::settings();
        Stores::check($settings);
        $s3 = $settings->s3;
        $facts = [
            'ok' => true,
            'where' => $s3 === null ? $settings->directory : "$s3->endpoint/$s3->bucket",
            'key_file' => Stores::keyFile(),
            'key' => $settings->keys->current,
            'earlier_keys' => array_values(array_diff($settings->keys->ids(), [$settings->keys->current])),
            'forgotten_keys' => $forgotten,
        ];
        match (true) {
            $this->wantsJson() => $this->json($facts),
            $this->option('starting') === true => null,
            default => $this->components->info(
                "Contents lie in {$facts['where']}, sealed with the key {$facts['key']}"
                    .($facts['earlier_keys'] === []
                        ? ''
                        : ', some still with '.implode(', ', $facts['earlier_keys']).' until all has been read once')
                    .". Keep a copy of {$facts['key_file']} somewhere else.",
            ),
        };

        return self::PROVEN;
    }
}
