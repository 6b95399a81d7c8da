<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

/** A statement of a welcome letter about an account. */
enum Fact: string
{
    case Host = 'host';
    case Address = 'address';
    case Port = 'port';
    case Protocol = 'protocol';
    case Login = 'login';
    case Password = 'password';
    case Directory = 'directory';
    case Domain = 'domain';
}
