@include('errors.plain', [
    'title' => 'An error inside Cellarium',
    'words' =>
        'The last step may not have been done. Its log says what happened; runs under way are taken up by themselves.',
])
