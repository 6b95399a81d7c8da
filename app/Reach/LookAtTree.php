<?php

declare(strict_types=1);

namespace App\Reach;

use App\Errands\ErrandResult;
use App\Errands\Errands;
use App\Errands\ErrandTask;
use App\Models\Account;
use App\Models\Errand;
use Cellarium\Core\Path\RemotePath;

final class LookAtTree extends ErrandTask
{
    public function __construct(private readonly DirectoryLook $look)
    {
    }

    public static function title(): string
    {
        return 'Looking into the directory';
    }

    /**
     * A directory that was not there may have been made since; where the host does not say in time, what was seen last
     * stays.
     */
    public static function again(Account $account, ?RemotePath $directory): void
    {
        if ($directory !== null && $account->seen()->lacks($directory)) {
            Errands::start(self::class, "/accounts/$account->id", $account, ['made' => $directory->toString()]);
            // Its relations stay as they were loaded.
            $account->forceFill(['tree' => Account::findOrFail($account->id)->tree])->syncOriginalAttribute('tree');
        }
    }

    protected function do(Errand $errand): ErrandResult
    {
        $account = $errand->account ?? throw self::removed();
        $made = $errand->given['made'] ?? null;
        is_string($made)
            ? $this->look->lookAgain($account, RemotePath::fromString($made))
            : $this->look->look($account, RemotePath::fromString((string) ($errand->given['at'] ?? '/')));

        return new ErrandResult('Looked at.');
    }
}
