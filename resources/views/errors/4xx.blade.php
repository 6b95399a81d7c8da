@include('errors.plain', match ($exception->getStatusCode()) {
    404 => ['title' => 'There is nothing here', 'words' => 'What this address meant is gone, or never was. The finder may know it under another name.'],
    419 => ['title' => 'The page was open too long', 'words' => 'Nothing was done. Go back, load the page again and repeat the last step.'],
    413 => ['title' => 'The file is too large', 'words' => 'It did not arrive. The limit is '.ini_get('upload_max_filesize').'.'],
    default => ['title' => 'This is not possible', 'words' => 'The application does not take this request ('.$exception->getStatusCode().'). Nothing was done.'],
})
