<p class="word is-trouble" role="alert"><bdi>{{ $trouble }}</bdi></p>
