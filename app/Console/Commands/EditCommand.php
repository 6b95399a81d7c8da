<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Files\CarryOutByHand;
use App\Files\FilePlace;
use App\Files\FileSecrets;
use App\Files\TextEditing;
use App\Files\TextReview;
use App\Models\ChangeState;
use App\Models\FileDraft;
use App\Models\Person;
use Cellarium\Core\File\SideBySide;
use Cellarium\Core\File\SideLine;
use Cellarium\Core\File\SideMark;

final class EditCommand extends CellariumCommand
{
    protected $signature = 'cellarium:edit {site : the domain} {path : a text file, from where the site begins} '
        .'{--with= : a file here that holds the new text, instead of opening an editor} '
        .'{--because= : why it is saved although the inspection stops it} {--yes : save without asking} {--json}';

    protected $description = 'Edit a text file of a site in your own editor (VISUAL or EDITOR), looked at before it is '
        .'saved';

    public function handle(TextEditing $editing, TextReview $review, CarryOutByHand $carryOut): int
    {
        $site = $this->siteNamed((string) $this->argument('site'));
        $file = FilePlace::ofSite($site, trim((string) $this->argument('path'), '/'));
        FileSecrets::mayBeSeen($site->account_id, $file->at);
        $person = Person::viewer() ?? throw new Problem('Nobody is named who edits. Name a person with --as.');
        $draft = $editing->draft($site->account, $file->at, $person);
        $editing->open($draft);
        FileSecrets::mayBeSeen($site->account_id, $file->at, $editing->base($draft)->edited());
        array_map($this->tell(...), $editing->othersInWords($draft));
        $clashes = $draft->text === null ? [] : $draft->merged['clashes'] ?? [];
        $editing->keep($draft, $this->edited($draft, $editing));
        if ($draft->text === null) {
            $draft->delete();

            return $this->ended('Nothing was changed, so nothing is saved.', null);
        }
        $place = $file->at($file->at->parent()) ?? $file;
        $found = $review->of($place, $draft);
        $found['barred'] === null || throw new Problem("$found[barred] Your text is kept as a draft.");
        $this->showDifference($found['difference']);
        foreach ($found['mistakes'] as $mistake) {
            $this->tell("Line $mistake->line: $mistake->sentence");
        }
        $mustAsk = $found['mistakes'] !== [] || $clashes !== [];
        $isWanted = $this->option('yes') === true && ! $mustAsk
            || ($this->input->isInteractive() && ! $this->wantsJson() && $this->confirm('Save it to the server?'));
        if (! $isWanted) {
            return $this->refuse('Not saved. Your text is kept as a draft; it is there when the file is edited again.');
        }
        $reason = $this->option('because');
        $done = $carryOut->carryOut($editing->orderSave($place, $draft, $person, is_string($reason) ? $reason : null));

        return $done->state === ChangeState::Done
            ? $this->ended("$done->title: saved and confirmed by the server. ".($done->proof['words'] ?? ''), $done->id)
            : $this->refuse("$done->title: {$done->state->label()}. $done->trouble Your text is kept as a draft.");
    }

    /** What is written while a person works stands beside what the command answers. */
    private function tell(string $sentence): void
    {
        $this->wantsJson() || $this->components->warn($sentence);
    }

    private function ended(string $words, ?int $change): int
    {
        $this->wantsJson()
            ? $this->json(['ok' => true, 'change' => $change, 'words' => trim($words)])
            : $this->components->info(trim($words));

        return self::PROVEN;
    }

    /** @throws Problem */
    private function edited(FileDraft $draft, TextEditing $editing): string
    {
        $with = $this->option('with');
        if (is_string($with)) {
            return (string) file_get_contents($this->readable($with));
        }
        $editor = (getenv('VISUAL') ?: null) ?? (getenv('EDITOR') ?: null)
            ?? throw new Problem('No editor is named. Set VISUAL or EDITOR, or give the text with --with.');
        $directory = sys_get_temp_dir().'/cellarium-edit-'.bin2hex(random_bytes(8));
        mkdir($directory, 0700);
        // Its own name, so that an editor knows what kind of text it is.
        $file = "$directory/".str_replace('/', '-', $draft->path()->name());
        try {
            file_put_contents($file, $draft->text ?? $editing->base($draft)->edited());
            $process = proc_open("$editor ".escapeshellarg($file), [STDIN, STDOUT, STDERR], $pipes);
            $code = $process === false ? -1 : proc_close($process);
            $code === 0 || throw new Problem("The editor ended with $code, so nothing was saved.");

            return (string) file_get_contents($file);
        } finally {
            @unlink($file);
            @rmdir($directory);
        }
    }

    private function showDifference(?SideBySide $difference): void
    {
        if ($this->wantsJson() || $difference === null) {
            return;
        }
        foreach ($difference->rows as $row) {
            if ($row === []) {
                $this->line('  …');

                continue;
            }
            [$before, $after] = $row;
            $isSame = $after->mark === SideMark::Same;
            $isSame && $this->line("  {$before->text}");
            $isSame || $this->sides($before, $after);
        }
    }

    private function sides(SideLine $before, SideLine $after): void
    {
        $before->mark === SideMark::Nothing || $this->line("- $before->text", 'comment');
        in_array($after->mark, [SideMark::Nothing, SideMark::Removed], true) || $this->line("+ $after->text", 'info');
    }
}
