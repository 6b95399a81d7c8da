<p class="word is-trouble" role="alert"><bdi>@words($trouble)</bdi></p>
