<?php

declare(strict_types=1);

namespace App\Plans;

use App\Models\FtpUser;
use App\Models\Package;
use App\Models\Person;
use App\Models\Site;
use Cellarium\Core\Path\RemotePath;

/** A package that somebody wants on a site. */
final readonly class DeploymentRequest
{
    /**
     * @param  FtpUser|null  $as  whom it signs in as; null for the account itself
     * @param  RemotePath|null  $place  a directory inside the document root or mounted below the site; null for the
     *     document root itself, or for where the package's type says
     * @param  string|null  $reason  why it goes there although another site fits better
     */
    public function __construct(
        public Site $site,
        public Package $package,
        public ?FtpUser $as = null,
        public ?Person $person = null,
        public ?RemotePath $place = null,
        public ?string $reason = null,
    ) {
    }
}
