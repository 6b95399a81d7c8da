<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Failure\Problem;
use App\Models\Account;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Intake\Column;
use Cellarium\Core\Intake\CsvCell;

/** The list of all accounts as comma-separated values, in the form that Lists takes over again. */
final readonly class AccountExport
{
    /** @param  resource  $sink */
    public function write($sink, bool $withSecrets): void
    {
        $columns = array_values(
            array_filter(
                Column::cases(),
                static fn (Column $column): bool => $withSecrets || $column !== Column::Password,
            ),
        );
        CsvCell::line($sink, array_map(static fn (Column $column): string => $column->label(), $columns));
        foreach (Account::with('client', 'sites')->orderBy('id')->lazy(200) as $account) {
            $facts = [
                'client' => $account->client->name,
                'group' => $account->client->group,
                'label' => $account->label,
                'company' => $account->company,
                'host' => $account->host,
                'port' => $account->port,
                'protocol' => $account->protocol->value,
                'login' => $account->login,
                'address' => $account->address,
                'start_directory' => $account->start_directory,
                'tags' => implode(', ', $account->tags),
                'notes' => $account->notes,
            ] + ($withSecrets ? ['password' => $account->secret] : []);
            // A line for each site; an account without one has a line of its own.
            foreach ($account->sites->isEmpty() ? [null] : $account->sites as $site) {
                $row = $facts + ['domain' => $site?->domain, 'document_root' => $site?->document_root];
                CsvCell::line(
                    $sink,
                    array_map(static fn (Column $column): string => (string) ($row[$column->value] ?? ''), $columns),
                );
            }
        }
    }

    /**
     * With the secrets, in a zip file that is encrypted with AES-256; the plain list never lies on the disk.
     *
     * @return string a file to be sent and removed
     */
    public function encrypted(Secret $passphrase): string
    {
        $list = fopen('php://temp/maxmemory:33554432', 'w+b');
        assert($list !== false);
        $this->write($list, true);
        rewind($list);
        $file = tempnam(sys_get_temp_dir(), 'cellarium-list-');
        $zip = new \ZipArchive;
        if ($file === false || $zip->open($file, \ZipArchive::OVERWRITE) !== true) {
            throw new Problem(
                'The list could not be written. Check the space and permissions of the disk for temporary files.',
            );
        }
        $zip->addFromString('accounts.csv', (string) stream_get_contents($list));
        if (
            ! $zip->setEncryptionName('accounts.csv', \ZipArchive::EM_AES_256, $passphrase->reveal())
            || ! $zip->close()
        ) {
            @unlink($file);
            throw new Problem(
                'The list could not be encrypted, so it was not written. Check the space of the disk for temporary '
                    .'files.',
            );
        }

        return $file;
    }
}
