-- The versions of a wording are found among all changes of a book, of which those of cards are by far the most.
create index content_change_of_wordings on content_change (book_id, id) where kind = 'wording';
