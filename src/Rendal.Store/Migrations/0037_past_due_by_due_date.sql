-- How old an account's oldest item is counts from its due date, also where a book ages by document date: reckoned anew when it is asked for.
update round set items_basis = null;
