<?php

declare(strict_types=1);

namespace Tests\Support;

/** A made-up site without a fault, written as tidily or untidily as people and programs do, to plant faults in. */
final class PlantedSite
{
    /** @var list<string> "code path line" of what was planted */
    public array $planted = [];

    /** @var array<string, string> contents by path */
    public array $files;

    public function __construct(private readonly HtmlManner $manner)
    {
        $this->files = [
            'index.html' => $this->page('Ferries on the sound', [
                $this->manner->tag('a', ['href' => 'news/'], 'News'),
                $this->manner->tag('a', ['href' => 'about.html#crew'], 'The crew'),
                $this->manner->tag('img', ['src' => 'img/harbour.jpg', 'width' => '640', 'alt' => 'The harbour']),
                $this->manner->tag('img', ['srcset' => 'img/quay-1.webp 1x, img/quay-2.webp 2x', 'alt' => 'x']),
                $this->manner->tag('a', ['href' => 'mailto:crew@saltmarshferries.example'], 'Write'),
                $this->manner->tag('a', ['href' => 'https://tideclock.example/sound'], 'Tides'),
                $this->manner->tag('a', ['href' => 'gr%C3%B6%C3%9Fe.html'], 'Sizes'),
            ]),
            'about.html' => $this->page('About the crew', [
                $this->manner->tag('h2', ['id' => 'crew'], 'The crew'),
                $this->manner->tag('p', [], 'We opened on 12 March 2019 and have sailed since.'),
                $this->manner->tag('a', ['href' => './'], 'Back'),
            ]),
            'news/index.html' => $this->page('News', [
                $this->manner->tag('a', ['href' => '../index.html'], 'Back'),
                $this->manner->tag('a', ['href' => '/news/spring.html'], 'Spring'),
            ]),
            'news/spring.html' => $this->page('Spring timetable', [
                $this->manner->tag('p', [], 'The spring sailings start on 2 March 2027.'),
                $this->manner->tag('a', ['href' => '../news/'], 'All news'),
            ]),
            'größe.html' => $this->page('Sizes', [$this->manner->tag('a', ['href' => '/about.html'], 'Crew')]),
            'css/site.css' => "@import 'base.css';\nbody{background:url(../img/paper.png)}\n"
                ."@font-face{src:url('../fonts/quay.woff2') format('woff2')}\n/* url(gone.png) */\n",
            'css/base.css' => "a{color:#123}\na::after{content:'url(gone.png)'}\n",
            'js/menu.js' => "import { open } from './open.js';\nopen('#nav', `\${1}.html`);\n// import './gone.js'\n"
                ."fetch('/data/tides.json');\n//# sourceMappingURL=menu.js.map\n",
            'js/open.js' => "export const open = (at) => document.querySelector(at);\n",
            'js/menu.js.map' => '{"version":3}',
            'data/tides.json' => '{"high":["06:12"]}',
            'site.webmanifest' => '{"name":"Ferries","start_url":"/","icons":[{"src":"img/mark.png"}]}',
            'favicon.ico' => 'x',
            'robots.txt' => "User-agent: *\n",
            'fonts/quay.woff2' => 'x',
        ];
        foreach (['harbour.jpg', 'quay-1.webp', 'quay-2.webp', 'paper.png', 'mark.png'] as $image) {
            $this->files["img/$image"] = "x $image";
        }
    }

    /** A line at the end of a page, and what is to be found in it. */
    public function plant(string $path, string $line, string ...$codes): self
    {
        $number = substr_count($this->files[$path], "\n") + 1;
        $this->files[$path] .= $line.$this->manner->lineEnd();
        foreach ($codes as $code) {
            $this->planted[] = "$code $path $number";
        }

        return $this;
    }

    /** A file of its own, and what is to be found of it ("code" or "code line"). */
    public function add(string $path, string $text, string ...$codes): self
    {
        $this->files[$path] = $text;
        foreach ($codes as $code) {
            [$name, $line] = [...explode(' ', $code), ''];
            $this->planted[] = trim("$name $path $line");
        }

        return $this;
    }

    public function tag(string $name, array $attributes = [], ?string $text = null): string
    {
        return $this->manner->tag($name, $attributes, $text);
    }

    /** @param  list<string>  $lines */
    public function page(string $title, array $lines): string
    {
        return implode($this->manner->lineEnd(), [
            ...$this->manner->head($title),
            $this->manner->tag('link', ['rel' => 'stylesheet', 'href' => '/css/site.css']),
            $this->manner->tag('link', ['rel' => 'manifest', 'href' => '/site.webmanifest']),
            $this->manner->tag('script', ['type' => 'module', 'src' => '/js/menu.js'], ''),
            ...$this->manner->noise(),
            ...$lines,
            '',
        ]);
    }
}
