<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\AccountExport;
use App\Accounts\AccountImport;
use App\Models\RecordKind;
use App\Record\Record;
use Cellarium\Core\Credential\PasswordStrength;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Intake\AccountList;
use Cellarium\Core\Intake\Column;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\RateLimiter;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Lists of accounts in and out. */
final class AccountImportController
{
    public function bring(): View
    {
        return view('list', ['list' => null]);
    }

    public function take(Request $request, AccountImport $lists): RedirectResponse
    {
        $request->validate(
            [
                'list' => 'required_without:text|file|max:20480',
                'text' => 'required_without:list|nullable|string|max:20000000',
            ],
            ['required_without' => 'Choose a file, or paste the list.'],
        );
        $file = $request->file('list');
        $text =
            $file === null ? $request->string('text')->toString() : (string) file_get_contents($file->getRealPath());
        AccountList::read($text);

        return redirect('/accounts/import/'.$lists->keep($text));
    }

    public function look(Request $request, string $name, AccountImport $lists): View
    {
        $list = $lists->list($name);
        $columns = $this->columns($request, $list);

        return view('list', [
            'list' => $list,
            'name' => $name,
            'columns' => $columns,
            'rehearsal' => $lists->rehearse($list, $columns),
        ]);
    }

    public function takeOver(Request $request, string $name, AccountImport $lists): RedirectResponse
    {
        $list = $lists->list($name);
        $counts = $lists->takeOver($list, $this->columns($request, $list));
        $lists->forget($name);
        Record::write(
            RecordKind::ListImported,
            "A list was imported: {$counts['new']} new, {$counts['changed']} changed, {$counts['same']} the same",
        );

        return redirect('/accounts')->with(
            'done',
            "Imported: {$counts['new']} new, {$counts['changed']} changed, {$counts['same']} the same.",
        );
    }

    /** @return array<int, Column> as chosen on the page, else as guessed */
    private function columns(Request $request, AccountList $list): array
    {
        $chosen = $request->input('columns');
        if (! is_array($chosen)) {
            return $list->guess();
        }
        $columns = [];
        foreach (array_keys($list->headings) as $number) {
            $column = Column::tryFrom(is_string($chosen[$number] ?? null) ? $chosen[$number] : '');
            if ($column !== null && ! in_array($column, $columns, true)) {
                $columns[$number] = $column;
            }
        }

        return $columns;
    }

    public function offer(): View
    {
        return view('export');
    }

    public function export(AccountExport $export): StreamedResponse
    {
        Record::write(RecordKind::ListExported, 'The list of accounts was exported, without secrets');

        return response()->streamDownload(
            static function () use ($export): void {
                $sink = fopen('php://output', 'wb');
                assert($sink !== false);
                $export->write($sink, false);
            },
            'accounts.csv',
            ['Content-Type' => 'text/csv; charset=utf-8'],
        );
    }

    public function exportSecrets(
        Request $request,
        AccountExport $export,
        PasswordStrength $strength,
    ): BinaryFileResponse|RedirectResponse {
        $person = $request->user();
        $limit = "export:$person->id";
        $passphrase = $request->string('passphrase')->toString();
        $guessable = $strength->bits($passphrase, [$person->name, $person->email]) < PasswordStrength::MINIMUM_BITS;
        $wrong = match (true) {
            RateLimiter::tooManyAttempts($limit, 5) => 'Too many tries. Wait a minute, then try again.',
            $passphrase !== $request->string('passphrase_again')->toString() => 'The two passphrases are not the '
                .'same. The list was not exported.',
            $guessable => 'The passphrase is too easy to guess for all the passwords of all accounts: take five words '
                .'or more. The list was not exported.',
            default => null,
        };
        if ($wrong !== null) {
            RateLimiter::hit($limit, 60);

            return redirect('/accounts/export')->with('trouble', $wrong);
        }
        $file = $export->encrypted(new Secret($passphrase));
        Record::write(RecordKind::ListExported, 'The list of accounts was exported with its secrets, encrypted');

        return response()->download($file, 'accounts.zip')->deleteFileAfterSend();
    }
}
