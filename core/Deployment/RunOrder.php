<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Answers;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Plan\Way;

/** The order for one run. */
final readonly class RunOrder
{
    /**
     * @param  string  $id  letters a-z and digits, unique; part of temporary names
     * @param  RemotePath  $root  the document root as the login sees it
     * @param  Manifest  $target  hashes known, contents in the store
     * @param  EarlierLook  $known  the last look at this document root, for its hashes
     * @param  string|null  $seen  digest of the listing the plan was shown for; the run refuses when the server differs
     * @param  list<string>  $startPages  the site's precedence
     * @param  int  $spaceBeside  bytes that must be free beside what is sent
     * @param  bool  $readAnew  whether the backup reads every file, whatever is known of it
     * @param  bool  $collapseAccepted  whether a person has said that it is right when much less is listed than was
     *     known
     * @param  bool  $believesHashes  whether what the server computes over its files proves them, where it can;
     *     else they are read back
     * @param  Way  $way  the same whenever this run is taken up
     * @param  string|null  $public  the directory in the root that visitors come in at; null where it is the root
     * @param  bool  $hidesBeside  whether what lies beside the root has no address
     * @param  int|null  $proofMost  files that are read back at the most; null for all that no address shows
     * @param  float  $lingerSeconds  that what is set aside stays reachable once the new pages are there
     * @param  Manifest|null  $left  what the last deployment left; what changed since is a question
     */
    public function __construct(
        public string $id,
        public RemotePath $root,
        public Manifest $target,
        public Policy $policy,
        public EarlierLook $known,
        public ?string $seen,
        public array $startPages,
        public int $spaceBeside = 0,
        public bool $readAnew = false,
        public bool $collapseAccepted = false,
        public ?Manifest $left = null,
        public ?Answers $answers = null,
        public bool $believesHashes = false,
        public Way $way = Way::FileByFile,
        public float $lingerSeconds = 1.0,
        public ?string $public = null,
        public ?int $proofMost = null,
        public bool $hidesBeside = true,
    ) {
    }
}
