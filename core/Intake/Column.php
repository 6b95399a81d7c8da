<?php

declare(strict_types=1);

namespace Cellarium\Core\Intake;

/** The meaning of a column in a list of accounts. */
enum Column: string
{
    case Client = 'client';
    case Group = 'group';
    case Label = 'label';
    case Company = 'company';
    case Host = 'host';
    case Port = 'port';
    case Protocol = 'protocol';
    case Login = 'login';
    case Password = 'password';
    case Address = 'address';
    case StartDirectory = 'start_directory';
    case Domain = 'domain';
    case DocumentRoot = 'document_root';
    case Tags = 'tags';
    case Notes = 'notes';

    public function label(): string
    {
        return str_replace('_', ' ', $this->value);
    }

    /** @return list<string> headings it goes by, small letters without marks */
    private function headings(): array
    {
        return match ($this) {
            self::Client => ['client', 'customer', 'company name', 'client name', 'customer name', 'owner', 'for'],
            self::Group => ['group', 'client group', 'category', 'team'],
            self::Label => ['label', 'name', 'title', 'account', 'account name'],
            self::Company => ['provider', 'hosting company', 'hoster', 'company', 'hosting'],
            self::Host => [
                'host',
                'hostname',
                'host name',
                'server',
                'ftp host',
                'ftp server',
                'ftp address',
                'server name',
            ],
            self::Port => ['port', 'ftp port', 'port number'],
            self::Protocol => ['protocol', 'type', 'connection', 'connection type', 'encryption'],
            self::Login => [
                'login',
                'user',
                'username',
                'user name',
                'ftp user',
                'ftp login',
                'ftp username',
                'login name',
                'user id',
            ],
            self::Password => ['password', 'pass', 'ftp password', 'pw', 'pwd', 'secret'],
            self::Address => ['ip', 'ip address', 'address', 'server ip'],
            self::StartDirectory => ['start directory', 'initial directory', 'login directory', 'home'],
            self::Domain => ['domain', 'site', 'website', 'url', 'web address', 'domain name'],
            self::DocumentRoot => [
                'document root',
                'directory',
                'web directory',
                'path',
                'folder',
                'web root',
                'docroot',
                'remote directory',
            ],
            self::Tags => ['tags', 'tag', 'labels', 'keywords'],
            self::Notes => ['notes', 'note', 'comment', 'comments', 'remarks', 'remark'],
        };
    }

    public static function guess(string $heading): ?self
    {
        $words = trim((string) preg_replace('/[^a-z0-9]+/', ' ', mb_strtolower($heading)));
        foreach (self::cases() as $column) {
            if (in_array($words, $column->headings(), true) || $words === str_replace('_', ' ', $column->value)) {
                return $column;
            }
        }

        return null;
    }
}
