<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\ChangeState;
use App\Models\FileDraft;

/** Files of a site from the console. */
final class FilesConsoleTest extends FilesTestCase
{
    public function test_files_are_found_and_what_was_not_looked_at_is_told(): void
    {
        [$status, $said] = $this->artisanJson(...['find', 'site.example', '*.html', '--text=brass', '--in=dials']);

        self::assertSame(0, $status, json_encode($said, JSON_THROW_ON_ERROR));
        self::assertSame(["{$this->at()}/dials/brass.html"], array_column($said['found'], 'path'));
        self::assertSame([[1, '<h1>Brass</h1>']], $said['found'][0]['lines']);
        self::assertSame([1, 'day'], [
            $this->artisanJson(...['find', 'site.example', '--from=tomorrow'])[0],
            substr($this->artisanJson(...['find', 'site.example', '--from=tomorrow'])[1]['error'], 12, 3),
        ]);
    }

    public function test_a_folder_is_put_there_and_proven_and_nothing_starts_unasked(): void
    {
        $from = "$this->var/bring";
        mkdir("$from/new", recursive: true);
        file_put_contents("$from/new/ä b.html", '<h1>New</h1>');
        file_put_contents("$from/prices.html", '<h1>Fares</h1>');

        [$status, $said] = $this->artisanJson(...['put', 'site.example', $from]);
        self::assertSame(1, $status);
        self::assertStringContainsString('nothing was touched', $said['error']);
        self::assertSame('<h1>Prices</h1>', file_get_contents($this->root().'/prices.html'));

        [$status, $said] = $this->artisanJson(...['put', 'site.example', $from, '--yes']);
        self::assertSame([0, 'proven'], [$status, $said['state']], json_encode($said, JSON_THROW_ON_ERROR));
        self::assertSame([1, 1], [$said['added']['files'], $said['replaced']['files']]);
        self::assertSame('<h1>Fares</h1>', file_get_contents($this->root().'/prices.html'));
        self::assertFileExists($this->root().'/new/ä b.html');
        self::assertFileExists("$from/prices.html", 'what was brought stays here');
        [$status, $said] = $this->artisanJson(...['put', 'site.example', "$from/prices.html", 'dials', '--yes']);
        self::assertSame(0, $status, json_encode($said, JSON_THROW_ON_ERROR));
        self::assertFileExists($this->root().'/dials/prices.html');
    }

    public function test_a_text_is_edited_in_an_editor_of_ones_own_and_mistakes_ask_first(): void
    {
        $editor = "$this->var/editor";
        file_put_contents($editor, "#!/bin/sh\nsed -i 's/Prices/Fares/' \"\$1\"\n");
        chmod($editor, 0700);
        putenv("VISUAL=$editor");
        try {
            [$status, $said] = $this->artisanJson(...['edit', 'site.example', 'prices.html', '--yes']);
        } finally {
            putenv('VISUAL');
        }
        self::assertSame(0, $status, json_encode($said, JSON_THROW_ON_ERROR));
        self::assertSame('<h1>Fares</h1>', file_get_contents($this->root().'/prices.html'));
        self::assertSame(ChangeState::Done, $this->lastChange()->state);
        self::assertStringContainsString('to the byte', $said['words']);

        file_put_contents("$this->var/broken", '{"a": 1,}');
        file_put_contents($this->root().'/data.json', '{"a": 1}');
        $broken = "--with=$this->var/broken";
        [$status, $said] = $this->artisanJson(...['edit', 'site.example', 'data.json', $broken, '--yes']);
        self::assertSame(1, $status);
        self::assertStringContainsString('kept as a draft', $said['error']);
        self::assertSame('{"a": 1}', file_get_contents($this->root().'/data.json'));
        self::assertSame('{"a": 1,}', FileDraft::firstOrFail()->text);
        $same = "--with={$this->root()}/prices.html";
        self::assertSame(0, $this->artisanJson(...['edit', 'site.example', 'prices.html', $same])[0]);
    }
}
