<p class="word is-trouble" role="alert">{{ $trouble }}</p>
