-- What a choice has to know of customers beside the ledger is said of few of them: those are found without going through all cards.
create index customer_unusual on customer (book_id) where on_hold or reachable is distinct from true or minimum_balance is not null
    or head_office <> '' or groups <> 'branches' or form is not null;
