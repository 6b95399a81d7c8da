<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

/** What a welcome letter says about an account, and the labels it goes by. */
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

    /** @return list<string> patterns of the labels, small letters, the longest first where one begins another */
    public function labels(): array
    {
        return match ($this) {
            self::Host => ['host ?name', 'host(?: address)?', 'server(?: ?name| address| host)?', 'ftp[ -]address', 'remote host', 'connect to', 'site address', 's?ftps?(?=\s*:(?!\/\/))'],
            self::Address => ['(?:server )?ip(?:v4)?(?:[ -]?address| number)?', 'numeric address'],
            self::Port => ['port(?: number)?'],
            self::Protocol => ['protocol', 'connection(?: type)?', 'encryption', 'security', 'transfer (?:type|protocol)', 'logon type', 'access type'],
            self::Login => ['user ?names?', 'user ?id', 'log ?in(?: name| id)?', 'logon(?: name)?', 'account name', 'user'],
            self::Password => ['(?:initial |temporary |your )?password', 'pass ?word', 'pass ?phrase', 'passcode', 'pass', 'pwd', 'pw', 'secret'],
            self::Directory => ['(?:web |upload |home |remote |site |initial |start |default |target |root |public )?(?:directory|folder)', 'document ?root', 'web ?root', 'web ?space', 'upload (?:path|to)', 'remote path', 'path', 'files go (?:in|into|to)', 'doc ?root'],
            self::Domain => ['(?:primary |main |your |registered )?domain(?: ?name)?', 'web ?site(?: address)?', 'web address', 'site(?: name)?', 'url'],
        };
    }
}
