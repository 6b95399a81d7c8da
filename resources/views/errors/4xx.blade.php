{{-- The framework has pages of its own for some numbers, so each of those has a file here that comes to this one. --}}
@include(
    'errors.plain',
    match ($exception->getStatusCode()) {
        404 => [
            'title' => 'There is nothing here',
            'words' => 'What this address meant is gone, or never was. The finder may know it under another name.',
        ],
        419 => [
            'title' => 'The page was open too long',
            'words' => 'Nothing was done. Go back, load the page again and repeat the last step.',
        ],
        403 => [
            'title' => 'This is not yours to do',
            'words' => 'Nothing was done. '.$exception->getMessage(),
        ],
        429 => ['title' => 'Too many tries', 'words' => 'Nothing was done. Wait a minute, then try again.'],
        413 => [
            'title' => 'The file is too large',
            'words' => 'It did not arrive. The limit is '.ini_get('upload_max_filesize').'.',
        ],
        default => [
            'title' => 'This is not possible',
            'words' =>
                'The application does not take this request (' .
                $exception->getStatusCode() .
                '). Nothing was done.',
        ],
    })
