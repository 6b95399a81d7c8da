<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Models\Closing;
use App\Models\Person;
use Carbon\CarbonImmutable;
use Cellarium\Core\Credential\PasswordMaker;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Path\RemotePath;

/** An FTP user as it is wanted. */
final readonly class NewFtpUser
{
    public Secret $password;

    /**
     * @param  string  $name  the short name; the host puts something around it
     * @param  int|null  $spaceLimit  bytes
     * @param  string  $endsReason  why it never closes
     * @param  bool  $makesDirectory  whether a directory that is not there is made first
     * @param  bool  $forgets  whether its password is forgotten here once it is handed over
     */
    public function __construct(
        public string $name,
        public RemotePath $directory,
        public ?int $spaceLimit = null,
        public Closing $ends = Closing::WithJob,
        public ?CarbonImmutable $closesAt = null,
        public string $endsReason = '',
        public string $purpose = '',
        ?Secret $password = null,
        public bool $readOnly = false,
        public bool $makesDirectory = false,
        public bool $forgets = false,
        public ?Person $person = null,
    ) {
        $this->password = $password ?? (new PasswordMaker)->make();
    }
}
